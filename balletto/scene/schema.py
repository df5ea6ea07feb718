"""The JSON Schema of a scene file, made from the models that check it."""

from collections import Counter
from typing import Any

from .document import Scene

_REFERENCE = "#/$defs/"


def schema() -> dict[str, Any]:
    """A JSON Schema (draft 2020-12) of the scene file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **_with_plain_names(Scene.model_json_schema(by_alias=True)),
        "title": "Balletto scene",
    }


def _with_plain_names(made: dict[str, Any]) -> dict[str, Any]:
    """The schema with its definitions under their titles: those of tracks have long names else."""
    titles = {name: part["title"] for name, part in made["$defs"].items() if "title" in part}
    once = Counter(titles.values())
    names = {name: title for name, title in titles.items() if once[title] == 1}

    def renamed(part: Any) -> Any:
        if isinstance(part, list):
            return [renamed(item) for item in part]
        if isinstance(part, dict):
            return {name: renamed(item) for name, item in part.items()}
        if isinstance(part, str) and part.startswith(_REFERENCE):
            name = part.removeprefix(_REFERENCE)
            return _REFERENCE + names.get(name, name)
        return part

    definitions = {names.get(name, name): part for name, part in made["$defs"].items()}
    return renamed({**made, "$defs": dict(sorted(definitions.items()))})
