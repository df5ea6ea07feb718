"""Numbers of sentences, by their measures."""

import re
from dataclasses import replace

from ...scene.values.measures import Measure
from ...scene.values.quantities import read_quantity
from ...scene.values.quantity_reader import QuantityContext, QuantityError

NUMBER = r"−?\d{1,12}(?:\.\d{1,12})?"  # as sentences say it


def said_plainly(text: str) -> float:
    """The number that a sentence says: "−12.5"."""
    return float(text.replace("−", "-"))


def number_in(raw: str, measure: Measure, rate: float) -> float | int:
    """A number as it is typed, as it stands in a file; the scene says what it may be."""
    if re.fullmatch(r"\d{1,12}", raw) and measure.scale == 1:
        return int(raw)  # a seed may be larger than a number that is worked with
    for unit in (measure.unit.strip(), measure.one.strip()):
        if " " in unit:  # one of several words is cut off here
            raw = raw.strip().removesuffix(unit)
    open_measure = replace(measure, low=None, high=None)
    value = read_quantity(raw, open_measure, QuantityContext(rate=rate))
    if not isinstance(value, int | float):
        raise QuantityError("one value is needed here")
    return int(value) if value == int(value) else value
