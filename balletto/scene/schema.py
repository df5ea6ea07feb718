"""The JSON Schema of a scene file, made from the models that check it."""

from typing import Any

from .document import Scene


def schema() -> dict[str, Any]:
    """A JSON Schema (draft 2020-12) of the scene file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        **Scene.model_json_schema(by_alias=True),
        "title": "Balletto scene",
    }
