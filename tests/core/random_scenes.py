"""Random scenes within the schema, and random damage to scene files."""

import json
import random
from typing import Any

from balletto.lettering.families import FAMILIES
from balletto.scene.forms.outlines import MAX_DRAWING
from balletto.scene.masks import MASK_KINDS
from balletto.scene.schema import schema

_SCHEMA = schema()
# The rules of each part of a scene, by its name.
RULES = _SCHEMA["$defs"]
_TEXTS = (
    "Orbit",
    "",
    "  \n ",
    "Nine\nMoons",
    "e\u0301 👩‍🚀 🇫🇮",
    "שלום abc",
    "مرحبا 12",
    "สวัสดี",
    "東京",
    "\u200f",
    "a\tb\u00a0c",
    "ﬁ fi ff",
    "\U0010ffff",
)
_SHOWING = ("PictureLayer", "VideoLayer", "NestedLayer", "SoundLayer")
# What there is to be shown, see tests.core.media, and what is not there.
_FILES = {
    "picture": ("moon.png", "spark.svg", "gone.png"),
    "still": ("moon.png", "spark.svg", "gone.png"),
    "video": ("orbit.mp4", "gone.mp4"),
    "clip": ("orbit.mp4", "gone.mp4"),
    "sound": ("bell.wav", "gone.wav"),
}
_LIKELY = (0, 1, -1, 2, 5, 10, 30, 0.5, 100)


class RandomScenes:
    """Random scenes from a seed: every key and kind of the schema comes up in the long run."""

    def __init__(self, seed: int):
        self.random = random.Random(seed)

    def scene(self, nests: bool = True) -> dict[str, Any]:
        """A scene as plain data that the reader takes; small, to be drawn in no time. Where it does
        not nest others, it shows none."""
        chance = self.random
        data = self._any(_SCHEMA, 0)
        data["size"] = [chance.randint(16, 96), chance.randint(16, 96)]
        data["rate"] = chance.choice(["30", "24", "30000/1001", "1", "240"])
        data["length"] = chance.randint(1, 120)
        data.pop("version", None)
        data |= {"format": "balletto-scene", "version": 1}
        data["layers"] = [self._layer(number) for number in range(chance.choice([0, 1, 1, 2, 4]))]
        if nests:
            self._nest(data)
        else:
            data["layers"] = [each for each in data["layers"] if each["kind"] != "scene"]
            data["scenes"] = []
        self._refer(data["layers"])
        self._mark(data)
        self._tie(data)
        return data

    def part(self, rule: Any) -> Any:
        """Anything that a rule of the schema allows: a move, an effect, a style."""
        return self._any(rule, 0)

    def damaged(self, text: str) -> str:
        """A scene file with some of its text changed so that it is one no more."""
        chance = self.random
        data = json.loads(text)
        kind = chance.randrange(4)
        if kind == 0:
            start = chance.randrange(len(text.strip()) - 1)
            return text[:start]
        if kind == 1:
            place = chance.randrange(len(text))
            return text[:place] + chance.choice("{}[]\x00\ud800") + text[place:] + "]"
        holder, key, _ = chance.choice(list(_places(data)))
        if kind == 2 and isinstance(holder, dict):
            holder[f"{key}?"] = holder.pop(key)
        else:
            holder[key] = chance.choice([{"what?": 1}, [[[]]], {"keys": []}, 1e400])
        return json.dumps(data)

    def _layer(self, number: int) -> dict[str, Any]:
        """A title as a rule, else any other kind."""
        others = ["ShapeLayer", "Group", "Adjustment", *_SHOWING]
        kind = self.random.choice(["Title"] * 8 + others)
        if kind == "Title":
            return self._title(number)
        layer = self._any(RULES[kind], 0)
        for place, move in enumerate(layer.get("moves", [])):
            move["id"] = f"m{place}"
        return layer | {"id": f"t{number}", "span": [0, 90]}

    def _nest(self, data: dict[str, Any]) -> None:
        """Layers that show a scene have one to show."""
        nested = [layer for layer in data["layers"] if layer["kind"] == "scene"]
        if nested:
            inner = RandomScenes(self.random.randrange(10_000)).scene(nests=False)
            data["scenes"] = [{"id": "s1", "scene": inner}]
        for layer in nested:
            layer["scene"] = "s1"

    def _mark(self, data: dict[str, Any]) -> None:
        """Moves start at markers that are there."""
        names = [marker["name"] for marker in data.get("markers") or [] if marker.get("name")]
        for move in [move for layer in data["layers"] for move in layer.get("moves") or []]:
            if move.pop("marker", None) and names:
                move["marker"] = self.random.choice(names)

    def _refer(self, layers: list[dict[str, Any]]) -> None:
        """Groups, mattes and paths lead to layers that are there, and not in a circle."""
        for place, layer in enumerate(layers):
            groups = [each["id"] for each in layers[place + 1 :] if each["kind"] == "group"]
            if layer.get("group"):
                layer["group"] = self.random.choice([None, *groups])
            alone = layer["kind"] == "title" and not layer.get("group")
            before = [each["id"] for each in layers[:place] if each["kind"] == "title"]
            shapes = [each["id"] for each in layers if each["kind"] == "shape"]
            if layer.get("along") and shapes:
                layer["along"]["layer"] = self.random.choice(shapes)
            else:
                layer.pop("along", None)
            if layer.get("matte") and alone and before:
                layer["matte"]["layer"] = before[0]
            else:
                layer.pop("matte", None)

    def _title(self, number: int) -> dict[str, Any]:
        chance = self.random
        title = self._any(RULES["Title"], 0)
        title |= {"id": f"t{number}", "kind": "title", "text": chance.choice(_TEXTS)}
        title["span"] = [0, chance.choice([120, 60, 0, -5, 7.5])]
        for move in title.get("moves", []):
            if move.get("becomes"):
                move["becomes"]["text"] = chance.choice(_TEXTS) or "x"
        for run in title.get("runs", []):
            run["to"] = run["from"] + chance.randint(1, 5)
        for place, move in enumerate(title.get("moves", [])):
            move["id"] = f"m{place}"
        return title

    def _any(self, rule: Any, depth: int) -> Any:
        """Anything that a rule of the schema allows."""
        chance = self.random
        while "$ref" in rule:
            rule = RULES[rule["$ref"].split("/")[-1]]
        for choice in ("oneOf", "anyOf"):
            if choice in rule:
                return self._any(chance.choice(rule[choice]), depth)
        if "const" in rule or "enum" in rule:
            return rule["const"] if "const" in rule else chance.choice(rule["enum"])
        return getattr(self, f"_{rule.get('type', 'null')}")(rule, depth)

    def _null(self, rule: Any, depth: int) -> None:
        return None

    def _boolean(self, rule: Any, depth: int) -> bool:
        return self.random.random() < 0.5

    def _string(self, rule: Any, depth: int) -> str:
        pattern = rule.get("pattern", "")
        if rule.get("maxLength") == MAX_DRAWING:
            return self.random.choice(["M0 0L20 5C1 2 3 4 5 6Z", "M-40 0H40", "M0 0Q9 9 30 0T60 0"])
        if pattern.startswith("^(?:x|y|z"):
            return self.random.choice(["x", "y", "z", "scale", "opacity", "axes.wght"])
        if pattern.startswith("^[A-Za-z]{2"):
            return self.random.choice(["tr", "zh-Hant", "ja", "sr"])
        if ":" in pattern:
            return self.random.choice(["9:16", "1:1", "16:9"])
        if pattern.startswith("^[^./"):
            return "gone.png"  # see _sound
        if pattern.startswith("^#"):
            return f"#{self.random.randrange(2**24):06X}"
        if pattern.startswith("^[A-Za-z]["):
            return "m1"
        return "9/s" if pattern.endswith("/s$") else "30"

    def _number(self, rule: Any, depth: int) -> float:
        low = rule.get("minimum", rule.get("exclusiveMinimum", -1e6))
        high = rule.get("maximum", rule.get("exclusiveMaximum", 1e6))
        usual = [value for value in _LIKELY if low < value < high]
        if usual and self.random.random() < 0.8:
            return self.random.choice(usual)
        return low + (high - low) * self.random.choice([0.001, 0.3, 0.999, 0.5])

    def _integer(self, rule: Any, depth: int) -> int:
        return int(self._number(rule, depth) + 0.999)

    def _array(self, rule: Any, depth: int) -> list[Any]:
        if "prefixItems" in rule:
            return [self._any(item, depth + 1) for item in rule["prefixItems"]]
        low = rule.get("minItems", 0)
        count = self.random.randint(low, min(rule.get("maxItems", 3), low + 2))
        items = [self._any(rule["items"], depth + 1) for _ in range(count)]
        if items and isinstance(items[0], dict) and "at" in items[0]:
            items = list({item["at"]: item for item in items}.values())
            items.sort(key=lambda key: key["at"])
        return items

    def _object(self, rule: Any, depth: int) -> dict[str, Any]:
        made = {}
        for name, of in rule.get("properties", {}).items():
            if name == "scenes":
                continue  # see _nest
            often = 0.9 if name in ("moves", "pose", "text") else 0.35
            if name in rule.get("required", ()) or self.random.random() < often:
                made[name] = self._any(of, depth + 1)
        if "properties" not in rule and self.random.random() < 0.5:
            pattern, inner = next(iter(rule.get("patternProperties", {}).items()), ("", None))
            inner = rule.get("additionalProperties") or inner
            if isinstance(inner, dict):
                names = ("x", "axes.wght") if "opacity" in pattern else ("wght", "wdth")
                made = {name: self._any(inner, depth + 1) for name in names}
        return self._sound(made)

    def _sound(self, made: dict[str, Any]) -> dict[str, Any]:
        """What the schema cannot say: which keys go together, which fonts there are."""
        if made.get("font") is not None:
            made["font"] = self.random.choice(list(FAMILIES))
        if "order" in made or "ranks" in made or "point" in made:
            for key, order in (("ranks", "by-hand"), ("point", "from-point")):
                if made.get("order") == order:
                    made[key] = made.get(key) or ([0, 2, 1] if key == "ranks" else [10, 20])
                else:
                    made.pop(key, None)
        if made.get("gap") is not None and made.get("span") is not None:
            del made["span"]
        if made.get("end") is not None and made["end"] <= made.get("start", 0):
            del made["end"]
        if made.get("file") and made.get("kind") in _FILES:
            made["file"] = self.random.choice(_FILES[made["kind"]])
        _with_few_copies(made)
        if "points" in made:
            made = {"points": [[0, self.random.choice(_LIKELY)], [0.5, 2], [1, 1]]}
        if "times" in made:
            made = {"times": made["times"] or [0]} if "combine" not in made else made
        return made

    def _tie(self, data: dict[str, Any]) -> None:
        """Ties are led to something that is there; where nothing is, they become plain."""
        for holder, key, within in list(_places(data)):
            if isinstance(holder[key], dict) and "tie" in holder[key]:
                holder[key]["tie"]["to"] = "scene.camera.distance"
                if key in ("fill", "outline_color", "color"):
                    holder[key] = "#123456"
                elif (key == "rotation" and holder.get("kind") in MASK_KINDS) or (
                    key in ("from", "to") and within == "stroke"
                ):
                    holder[key] = 30
                elif key in ("from", "to") and holder.get("kind") == "hatch":
                    holder[key] = 0.7
                elif key in _VECTORS and within not in ("pose", "last", "chance"):
                    holder[key] = _VECTORS[key]
                elif key == "size" and holder.get("kind") != "displace":
                    holder[key] = [30, 20]


def _with_few_copies(made: dict[str, Any]) -> None:
    """What has no place has no copies; what has, not so many that drawing takes long."""
    if made.get("kind") in ("adjustment", "sound"):
        made.pop("formation", None)
    for name in ("count", "columns", "rows"):
        if isinstance(made.get(name), int):
            made[name] = min(made[name], 12)


_VECTORS = {"position": [1, 2, 3], "rotation": [1, 2, 3], "scale": [1, 1], "from": [1, 1],
            "to": [2, 2], "center": [1, 1], "step": [9, 1]}  # fmt: skip


def _places(data: Any, within: Any = None) -> Any:
    """Every holder and key of plain data, and the key under which the holder stands."""
    pairs = data.items() if isinstance(data, dict) else enumerate(data)
    for key, value in pairs:
        yield data, key, within
        if isinstance(value, dict | list):
            yield from _places(value, key)
