"""Ready-made moves, in the scene's own format: data in presets.json beside this file."""

import json
from functools import lru_cache
from pathlib import Path
from typing import Any


@lru_cache(maxsize=1)
def presets() -> dict[str, dict[str, Any]]:
    """The presets by id, in the order of the gallery: {"id", "group", "name", "move"}."""
    text = Path(__file__).with_suffix(".json").read_text(encoding="utf-8")
    return {preset["id"]: preset for preset in json.loads(text)}
