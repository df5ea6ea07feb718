"""The blur of motion that an open shutter gives. The data only; what makes it
is balletto.picture.shutter.motion_blur."""

from typing import Annotated

from ..model import Counts, Degrees, Model, Number
from ..values import measures
from ..values.measures import Measure
from ..values.tracks import Changing
from ..values.wording import Said, Wording

ShutterAngle = Annotated[float, Number("a number of degrees", Counts.ANGLE, ge=0, le=360)]


class MotionBlur(Model):
    """The blur of motion that a shutter gives: open for `angle` of 360 degrees of a frame, about
    `phase` degrees after its time, in `samples` pictures (model, section 9). A layer's own shutter
    that is not `on` stays closed, whatever that of the scene is."""

    on: bool = True
    angle: Changing[ShutterAngle] = 180
    phase: Degrees = 0
    samples: Annotated[int, Number("a number of samples", Counts.COUNT, ge=2, le=64)] = 16


SHUTTER = Wording(
    "Motion blur",
    "Blurred by motion while a shutter is open for {angle} of a frame, {phase} late, seen in "
    "{samples}.",
    {
        "angle": Said("Angle of the shutter", Measure("°", drag=1, low=0, high=360), 180),
        "phase": Said("Phase of the shutter", measures.DEGREES, 0),
        "samples": Said("Samples", Measure(" samples", drag=0.1, low=2, high=64, one=" sample")),
    },
)
