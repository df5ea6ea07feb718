"""Documents of revisions are packed, most of them as what differs from an older one. By itself, so
that it can be done again from the start if it is cut."""

import json

from django.db import migrations

from web.projects.packing import packed, text_of, unpacked

WHOLE_EVERY, WORTH_IT = 32, 0.5
AT_A_TIME = 50  # revisions whose documents are in memory: the database's driver reads all at once


def _scenes_of(revisions):
    return revisions.order_by().values_list("scene", flat=True).distinct()


def _in_turn(revisions, scene):
    """The revisions of a scene, the oldest first."""
    keys = list(revisions.filter(scene=scene).order_by("number").values_list("pk", flat=True))
    for start in range(0, len(keys), AT_A_TIME):
        yield from revisions.filter(pk__in=keys[start : start + AT_A_TIME]).order_by("number")


def pack(apps, schema_editor):
    """Packs what is there, scene by scene."""
    revisions = apps.get_model("projects", "Revision").objects
    for scene in _scenes_of(revisions):
        whole, number_of_whole, size_of_whole = b"", 0, 0
        for revision in _in_turn(revisions, scene):
            text, data, basis = text_of(revision.document), None, None
            if whole and revision.number < number_of_whole + WHOLE_EVERY:
                differing = packed(text, whole)
                if len(differing) < size_of_whole * WORTH_IT:
                    data, basis = differing, number_of_whole
            if data is None:
                data = packed(text)
                whole, number_of_whole, size_of_whole = text, revision.number, len(data)
            revisions.filter(pk=revision.pk).update(packed=data, basis=basis)


def unpack(apps, schema_editor):
    """Has the documents as they were."""
    revisions = apps.get_model("projects", "Revision").objects
    for scene in _scenes_of(revisions):
        texts = {}  # of the newest one that is kept whole, by its number
        for revision in _in_turn(revisions, scene):
            basis = b"" if revision.basis is None else texts[revision.basis]
            text = unpacked(bytes(revision.packed), basis)
            if revision.basis is None:
                texts = {revision.number: text}
            revisions.filter(pk=revision.pk).update(document=json.loads(text))


class Migration(migrations.Migration):
    dependencies = [("projects", "0007_packed")]

    operations = [migrations.RunPython(pack, unpack)]
