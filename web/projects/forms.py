"""Forms for projects, scenes and scene files."""

from fractions import Fraction

from django import forms
from django.conf import settings
from django.core.exceptions import ValidationError

from balletto.scene.document import MAX_LENGTH, MAX_SIDE, rate_of
from balletto.scene.starts import USUAL_RATES, USUAL_SIZES, new_scene

SIZES = (
    *((f"{w}x{h}", f"{shape.capitalize()}, {w} × {h}") for (w, h), shape in USUAL_SIZES),
    ("own", "Typed below"),
)
RATES = (*USUAL_RATES, ("own", "Typed below"))


class ProjectForm(forms.Form):
    """The name of a project."""

    name = forms.CharField(max_length=200, label="Name")


class SceneForm(forms.Form):
    """Name, size, rate and length of a new scene."""

    name = forms.CharField(max_length=200, initial="New scene", label="Name")
    size = forms.ChoiceField(choices=SIZES, initial="1920x1080", label="Size")
    rate = forms.ChoiceField(choices=RATES, initial="30", label="Frames a second")
    width = forms.IntegerField(min_value=16, max_value=MAX_SIDE, required=False, label="Width")
    height = forms.IntegerField(min_value=16, max_value=MAX_SIDE, required=False, label="Height")
    own_rate = forms.CharField(
        max_length=20, required=False, label="Typed rate", help_text="12.5 or 30000/1001"
    )
    length = forms.DecimalField(
        min_value=0, max_value=MAX_LENGTH, max_digits=14, initial=3, label="Length"
    )
    length_in = forms.ChoiceField(
        choices=(("seconds", "seconds"), ("frames", "frames")),
        initial="seconds",
        label="Counted in",
    )

    def clean(self) -> dict:
        cleaned = super().clean()
        if cleaned.get("size") == "own" and not (cleaned.get("width") and cleaned.get("height")):
            self.add_error("size", f"Type a width and a height, from 16 to {MAX_SIDE} pixels.")
        if "rate" in cleaned:
            self._clean_rate(cleaned)
        if not self.errors:
            self._clean_length(cleaned)
        return cleaned

    def _clean_rate(self, cleaned: dict) -> None:
        typed = cleaned["own_rate"].strip() if cleaned["rate"] == "own" else cleaned["rate"]
        try:
            cleaned["rate"] = str(rate_of(typed))
        except (ValueError, ZeroDivisionError):
            self.add_error("rate", "Type a rate from 1 to 240, as 12.5 or 30000/1001.")

    def _clean_length(self, cleaned: dict) -> None:
        length = Fraction(cleaned["length"])
        if cleaned["length_in"] == "seconds":
            length *= rate_of(cleaned["rate"])
        cleaned["frames"] = round(length)
        if not 1 <= cleaned["frames"] <= MAX_LENGTH:
            raise ValidationError(
                f"The length must be from 1 to {MAX_LENGTH} frames; this is {cleaned['frames']}."
            )

    def document(self) -> dict:
        """The scene that was asked for, empty on a dark ground."""
        cleaned = self.cleaned_data
        size = [cleaned["width"], cleaned["height"]]
        if cleaned["size"] != "own":
            size = [int(side) for side in cleaned["size"].split("x")]
        return new_scene(cleaned["name"], (size[0], size[1]), cleaned["rate"], cleaned["frames"])


class SceneFileForm(forms.Form):
    """An uploaded scene file, or a ZIP of one with its files, not larger than is sensible."""

    file = forms.FileField(label="Scene file")

    def clean_file(self):
        file = self.cleaned_data["file"]
        is_bundle = file.name.lower().endswith(".zip")
        most = settings.MEDIA_FILE_MAX_BYTES if is_bundle else settings.SCENE_FILE_MAX_BYTES
        if file.size > most:
            limit = most // 1024**2
            raise ValidationError(f"A scene file may have {limit} MB; {file.name} has more.")
        return file
