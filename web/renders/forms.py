"""What is asked of a person before a clip is rendered."""

import math
import re
from collections.abc import Iterator

from django import forms
from django.core.exceptions import ValidationError

from balletto.clip.export_settings import USUAL_QUALITY
from balletto.clip.formats import FORMATS, Format
from balletto.scene.document import MAX_SIDE, Scene, rate_of
from balletto.scene.fits import fit_of
from web.projects.forms import RATES

from .plans import Plan, plans, wishes_of

_SIZES = {
    "1920x1080": "Wide 16:9",
    "1080x1920": "Tall 9:16",
    "1080x1080": "Square 1:1",
    "1080x1350": "Portrait 4:5",
}
_FITS = {
    "whole": "all of it, more background",
    "filled": "filled, sides cut off",
    "placed": "own places of its layers",
}
_LONGEST_NAME = 160  # what tells several clips apart comes behind it
KEPT_DAYS = ((None, "for ever"), (1, "a day"), (7, "a week"), (30, "30 days"), (90, "90 days"))


class RenderForm(forms.Form):
    """Name, formats, sizes with their fits, rate, range, quality and loops of clips."""

    name = forms.CharField(max_length=_LONGEST_NAME, label="Name")
    formats = forms.MultipleChoiceField(
        choices=[(name, each.title) for name, each in FORMATS.items()],
        error_messages={"required": "Choose a format at least."},
    )
    sizes = forms.MultipleChoiceField(required=False)
    own_size = forms.CharField(required=False, max_length=20, label="Another size")
    rate = forms.ChoiceField(label="Frames a second")
    first = forms.IntegerField(min_value=0, label="First frame")
    last = forms.IntegerField(min_value=0, label="Last frame")
    quality = forms.IntegerField(min_value=0, max_value=100, label="Quality")
    loops = forms.IntegerField(min_value=0, max_value=10_000, label="Plays")
    still_at = forms.IntegerField(min_value=0, label="Frame of a still")
    urgent = forms.BooleanField(required=False, label="Before all others")

    def __init__(self, scene: Scene, data: dict | None = None):
        super().__init__(data)
        self._scene = scene
        own = "x".join(map(str, scene.size))
        half = "x".join(str(max(16, round(side / 4) * 2)) for side in scene.size)
        named = {own: "As the scene", half: "Half", **_SIZES}
        named[own], named[half] = "As the scene", "Half"
        self.fields["sizes"].choices = [(size, _told(title, size)) for size, title in named.items()]
        rates = [(rate, title) for rate, title in RATES if rate not in ("own", scene.rate)]
        kept = f"{float(scene.frames_a_second):.6g}, as the scene"
        self.fields["rate"].choices = [(scene.rate, kept), *rates]
        last = scene.length - 1
        for name in ("first", "last", "still_at"):
            self.fields[name].max_value = last
            self.fields[name].validators.append(self._within(last))
        self.initial = {
            "name": (scene.name or "Untitled")[:_LONGEST_NAME],
            "formats": ["mp4"],
            "sizes": [own],
            "rate": scene.rate,
            "first": 0,
            "last": last,
            "quality": USUAL_QUALITY,
            "loops": 0,
            "still_at": scene.length * 2 // 3,
        }

    def _within(self, last: int):
        def check(value: int) -> None:
            if value > last:
                raise ValidationError(f"The last frame of the scene is {last}.")

        return check

    def kinds(self) -> list[tuple[str, Format]]:
        """The formats by name."""
        return list(FORMATS.items())

    def shapes(self) -> Iterator[dict]:
        """The sizes to choose from, and for those of another shape how the scene can fill them."""
        chosen = self["sizes"].value() or []
        for size, title in self.fields["sizes"].choices:
            sides = _sides(size)
            yield {
                "size": size,
                "title": title,
                "is_chosen": size in chosen,
                "fits": self._fits(sides),
                "fit": self.data.get(f"fit-{size}") or self._usual_fit(sides),
            }

    def _fits(self, sides: tuple[int, int]) -> list[tuple[str, str]]:
        if self._is_own_shape(sides):
            return []
        fit = fit_of(self._scene, sides)
        return [each for each in _FITS.items() if each[0] != "placed" or (fit and fit.places)]

    def _usual_fit(self, sides: tuple[int, int]) -> str:
        fit = fit_of(self._scene, sides)
        return fit.by if fit else "whole"

    def _is_own_shape(self, sides: tuple[int, int]) -> bool:
        width, height = self._scene.size
        return math.isclose(sides[0] / sides[1], width / height, rel_tol=0.01)

    def clean_own_size(self) -> tuple[int, int] | None:
        typed = self.cleaned_data["own_size"].strip()
        if not typed:
            return None
        sides = _sides(typed)
        if not all(16 <= side <= MAX_SIDE for side in sides):
            told = f"Type a width and a height from 16 to {MAX_SIDE}, as 1280 × 720."
            raise ValidationError(told)
        return sides

    def clean(self) -> dict:
        cleaned = super().clean()
        if not cleaned.get("sizes") and not cleaned.get("own_size") and "own_size" in cleaned:
            self.add_error("sizes", "Choose a size at least.")
        if cleaned.get("first", 0) > cleaned.get("last", math.inf):
            self.add_error("last", "The last frame lies before the first.")
        return cleaned

    def plans(self) -> list[Plan]:
        """The clips that are asked for; of a valid form."""
        cleaned = self.cleaned_data
        sizes = [(_sides(size), self._fit(size)) for size in cleaned["sizes"]]
        if cleaned["own_size"]:
            sizes.append((cleaned["own_size"], None))
        wishes = wishes_of(
            self._scene,
            cleaned["formats"],
            sizes,
            rate=rate_of(cleaned["rate"]),
            frames=range(cleaned["first"], cleaned["last"] + 1),
            quality=cleaned["quality"],
            loops=cleaned["loops"],
        )
        return plans(self._scene, cleaned["name"], wishes, cleaned["still_at"])

    def _fit(self, size: str) -> str | None:
        fit = self.data.get(f"fit-{size}")
        return fit if fit in _FITS else None


def _sides(text: str) -> tuple[int, int]:
    """Width and height of "1920x1080"; zeros if it is no size."""
    found = re.fullmatch(r"(\d{1,5})\s*[x×X]\s*(\d{1,5})", text)
    return (int(found[1]), int(found[2])) if found else (0, 0)


def _told(title: str, size: str) -> str:
    return f"{title}, {size.replace('x', ' × ')}"
