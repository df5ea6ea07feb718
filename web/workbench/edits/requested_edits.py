"""What the page asks for, made into edits of the core: what needs more than the scene as it is, its
history or another scene, is made here, all else by the core."""

import logging
import re
from collections.abc import Callable
from typing import Any

from balletto.intents.intents import edit_for
from balletto.intents.situation import Data, in_local_time, one_or_several
from balletto.scene.edits.meant import as_meant
from balletto.scene.edits.paths import name_of
from balletto.scene.errors import SceneError
from web.projects.nesting import renewals
from web.projects.origins import as_it_came, part_of

from .edit_requests import EditRequest
from .pasting import paste

logger = logging.getLogger(__name__)


def requested_edit(request: EditRequest, wanted: Any, seen: int = 0) -> Data:
    """The edit of the core for what the page wants; SceneError if that cannot be.

    seen: the revision by which the page named what it wants to change, if that is an older one
    """
    if not isinstance(wanted, dict):
        return {"name": None}
    try:
        then = request.document_at(seen)
        wanted = wanted if then is None else as_meant(wanted, then, request.data)
        if make := OF_PAGES.get(str(wanted.get("name"))):
            return make(request, in_local_time(request.situation, wanted))
        return edit_for(request.situation, wanted)
    except SceneError:
        raise
    except (LookupError, TypeError, ValueError, AttributeError, ArithmeticError) as error:
        # A request may say anything; but it may be a fault of ours, too.
        logger.warning("An edit could not be made: %.500s", wanted, exc_info=True)
        raise SceneError.at("edit", f"it does not say what it should ({error})") from None


_RETURNS = re.compile(r"[^.]+\.(style|moves\.[^.]+|(effects|masks)\.\d{1,4})")


def _as_it_came(request: EditRequest, wanted: Data) -> Data:
    """A move, an effect, a mask or a title's style back to what it was when it was added."""
    path = str(wanted.get("path"))
    if not _RETURNS.fullmatch(path):
        raise SceneError.at("path", "a move, an effect, a mask or a style can be put back")
    try:
        now, then = part_of(request.data, path), as_it_came(request.revision, path)
    except LookupError:
        raise SceneError.at(path, "this is not there any more") from None
    if now == then:
        raise SceneError.at("", "It is as it came: nothing of it has been changed")
    edits = [{"name": "set-value", "path": path, "value": then}]
    layer, kind, *_ = path.split(".")
    what = "Style" if kind == "style" else name_of({"id": now.get("kind"), **now})
    said = f"{what} of {name_of(request.situation.layer(layer))} as it came"
    return {"name": "several", "edits": edits, "said": said}


def _renew_scenes(request: EditRequest, wanted: Data) -> Data:
    """The scenes that it uses, as they are now."""
    owner = request.scene.project.owner_id
    edits = renewals(request.scene, request.data, owner)
    if not edits:
        raise SceneError.at("scenes", "the scenes in it are as they are now")
    return one_or_several(edits, "Scenes in it as they are now")


OF_PAGES: dict[str, Callable[[EditRequest, Data], Data]] = {
    "as-it-came": _as_it_came,
    "paste": paste,
    "renew-scenes": _renew_scenes,
}
