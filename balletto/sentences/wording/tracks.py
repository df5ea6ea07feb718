"""What is used less of values that change over time, as pieces: how they go from key to key and
beyond their keys, and what they follow."""

from typing import Any

from ...scene.values.measures import FRAMES, PIXELS, PLAIN, SIGNED
from ...scene.values.motion_path import PathTrack
from ...scene.values.tracks import Tied, Track
from ...scene.values.value_names import value_name
from .pieces import BEYOND, Choice, Followed, NumberPiece, Pieces, joined, said
from .values import ease_pieces


def say_track(path: str, track: Track[Any], label: str, with_eases: bool = True) -> Pieces:
    """How a keyed value goes from key to key, and beyond them."""
    keys = [
        said(
            f"from frame {key.at:g} {{}}",
            ease_pieces(f"{path}.keys.{index}.ease", key.ease, f"{label}, easing", True),
        )
        for index, key in enumerate(track.keys[:-1] if with_eases else ())
    ]
    beyond = [
        said(
            f"{side} them {{}}",
            Choice(f"{path}.{side}", f"{label}, {side} its keys", value=getattr(track, side),
                   options=BEYOND),
        )
        for side in ("before", "after")
    ]  # fmt: skip
    return said("{}: {}.", label, joined([*keys, *beyond]))


def say_way(path: str, track: PathTrack) -> Pieces:
    """The handles that bend the way between the keys of a place."""
    parts = []
    for index, key in enumerate(track.keys):
        for name, handle, words in (("in", key.coming, "comes to"), ("out", key.going, "leaves")):
            if handle is not None:
                base = f"{path}.keys.{index}.{name}"
                numbers = (
                    NumberPiece(
                        f"{base}.{axis}", f"Handle {where}", value=handle[axis], measure=PIXELS
                    )
                    for axis, where in enumerate(("across", "down"))
                )
                parts.append(said(f"{words} key {index + 1} by {{}}, {{}}", *numbers))
    return said("Its way {}.", joined(parts))


def say_tie(path: str, tied: Tied[Any], label: str) -> Pieces:
    """What a value follows: "tied to amount of “Rise” times −0.4 plus 0, 3 frames later"."""
    tie, base = tied.tie, f"{path}.tie"
    to = Followed(f"{value_name(tied.layer, tie.to)} of “{tied.owner}”")
    gain = NumberPiece(
        f"{base}.gain", f"{label}, gain of the tie", value=tie.gain, measure=PLAIN, rest=1
    )
    plus = NumberPiece(
        f"{base}.plus", f"{label}, offset of the tie", value=tie.plus, measure=SIGNED, rest=0
    )
    delay = NumberPiece(
        f"{base}.delay", f"{label}, delay of the tie", value=tie.delay, measure=FRAMES, rest=0
    )
    changed = () if tied.is_color else said(" times {} plus {}", gain, plus)
    return said("{}{}, {} later", to, changed, delay)
