# ruff: noqa: E501 - tables of cases
"""Values as they are typed: each form, what it means, and what is said where it means nothing."""

from dataclasses import replace
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from balletto.scene.moving.ease_words import TRACK_EASES, read_ease
from balletto.scene.values import measures as m
from balletto.scene.values.measures import Measure
from balletto.scene.values.quantities import Course, QuantityContext, QuantityError, read_quantity

CORNERS = Measure(" corners", low=3, high=200, one=" corner")
GAIN = Measure(" dB", below="softer", above="louder", low=-100, high=40)
TIMES = Measure(" ×", low=0.05)
WEIGHT = Measure("", before="weight", low=100, high=900)

HERE = QuantityContext(rate=30, now=40, rest=0)
WIDE = replace(HERE, side=1920)
KEYED = replace(HERE, may_change=True)
SEVERAL = replace(HERE, count=5, index=1, chance=0.25)

# (typed, measure, context, value as it stands in a file)
VALUES = [
    # numbers
    ("100", m.PIXELS, HERE, 100), ("0", m.PIXELS, HERE, 0), ("12.5", m.PIXELS, HERE, 12.5),
    ("12,5", m.PIXELS, HERE, 12.5), (".5", m.PIXELS, HERE, 0.5), (",5", m.PIXELS, HERE, 0.5),
    ("  7  ", m.PIXELS, HERE, 7), ("-90", m.PIXELS, HERE, -90), ("−90", m.PIXELS, HERE, -90),
    ("–90", m.PIXELS, HERE, -90), ("007", m.PIXELS, HERE, 7), ("0.001", m.PIXELS, HERE, 0.001),
    ("1234567", m.PIXELS, HERE, 1234567), ("--5", m.PIXELS, HERE, 5), ("-0", m.PIXELS, HERE, 0),
    # with the unit of the measure
    ("100 px", m.PIXELS, HERE, 100), ("100px", m.PIXELS, HERE, 100), ("100 PX", m.PIXELS, HERE, 100),
    ("100 pixels", m.PIXELS, HERE, 100), ("1 pixel", m.PIXELS, HERE, 1),
    ("−90°", m.DEGREES, HERE, -90), ("90 deg", m.DEGREES, HERE, 90),
    ("90 degrees", m.DEGREES, HERE, 90), ("1 degree", m.DEGREES, HERE, 1),
    ("50 ‰", m.THOUSANDTHS, HERE, 50), ("50", m.THOUSANDTHS, HERE, 50),
    ("50 thousandths", m.THOUSANDTHS, HERE, 50),
    ("12.5 %", m.OPACITY, HERE, 0.125), ("40", m.OPACITY, HERE, 0.4), ("40%", m.OPACITY, HERE, 0.4),
    ("40 percent", m.OPACITY, HERE, 0.4), ("100 %", m.OPACITY, HERE, 1), ("0 %", m.OPACITY, HERE, 0),
    ("150 %", m.PERCENT_OF_ONE, HERE, 1.5), ("-36 %", m.PERCENT, HERE, -36),
    ("−36 %", m.PERCENT, HERE, -36), ("36", m.PERCENT, HERE, 36),
    ("-50 %", m.PERCENT_OF_ONE_EITHER_WAY, HERE, -0.5),
    ("2.5 Hz", m.HERTZ, HERE, 2.5), ("2.5 hertz", m.HERTZ, HERE, 2.5), ("6", m.HERTZ, HERE, 6),
    ("6 corners", CORNERS, HERE, 6), ("5 corner", CORNERS, HERE, 5), ("6", CORNERS, HERE, 6),
    ("1.2 ×", TIMES, HERE, 1.2), ("1.2×", TIMES, HERE, 1.2), ("1.2 x", TIMES, HERE, 1.2),
    ("1.2 times", TIMES, HERE, 1.2), ("1.2", TIMES, HERE, 1.2),
    ("weight 700", WEIGHT, HERE, 700), ("700", WEIGHT, HERE, 700), ("Weight 700", WEIGHT, HERE, 700),
    ("3", m.PLAIN, HERE, 3), ("-0.4", m.PLAIN, HERE, -0.4),
    # times in fields of frames
    ("20", m.FRAMES, HERE, 20), ("20 frames", m.FRAMES, HERE, 20), ("1 frame", m.FRAMES, HERE, 1),
    ("12f", m.FRAMES, HERE, 12), ("12 fr", m.FRAMES, HERE, 12), ("1s", m.FRAMES, HERE, 30),
    ("1 s", m.FRAMES, HERE, 30), ("1.5 s", m.FRAMES, HERE, 45), ("1,5 s", m.FRAMES, HERE, 45),
    ("1.5 seconds", m.FRAMES, HERE, 45), ("2 sec", m.FRAMES, HERE, 60),
    ("500 ms", m.FRAMES, HERE, 15), ("1:12", m.FRAMES, HERE, 42), ("0:20", m.FRAMES, HERE, 20),
    ("00:20", m.FRAMES, HERE, 20), ("0:01:12", m.FRAMES, HERE, 42), ("1:00:00", m.FRAMES, HERE, 1800),
    ("-1s", m.FRAMES, HERE, -30), ("1s+12f", m.FRAMES, HERE, 42), ("1:12+3", m.FRAMES, HERE, 45),
    ("1s", m.FRAMES, replace(HERE, rate=24), 24), ("1:12", m.FRAMES, replace(HERE, rate=24), 36),
    ("0.5 frames", m.FRAMES, HERE, 0.5), ("20", m.FRAME, HERE, 20), ("frame 20", m.FRAME, HERE, 20),
    ("frame 1s", m.FRAME, HERE, 30), ("Frame 20", m.FRAME, HERE, 20), ("1s", m.LENGTH, HERE, 30),
    # times in fields of seconds
    ("1.5", m.SECONDS, HERE, 1.5), ("1.5 s", m.SECONDS, HERE, 1.5), ("500 ms", m.SECONDS, HERE, 0.5),
    ("15 frames", m.SECONDS, HERE, 0.5), ("1:15", m.SECONDS, HERE, 1.5),
    # directions
    ("100 up", m.ABOVE_BELOW, HERE, -100), ("100 above", m.ABOVE_BELOW, HERE, -100),
    ("100 px above", m.ABOVE_BELOW, HERE, -100), ("up 100", m.ABOVE_BELOW, HERE, -100),
    ("40 below", m.ABOVE_BELOW, HERE, 40), ("40 down", m.ABOVE_BELOW, HERE, 40),
    ("40 px below", m.ABOVE_BELOW, HERE, 40), ("40", m.ABOVE_BELOW, HERE, 40),
    ("-40", m.ABOVE_BELOW, HERE, -40), ("left 20", m.LEFT_RIGHT, HERE, -20),
    ("20 left", m.LEFT_RIGHT, HERE, -20), ("20 to the left", m.LEFT_RIGHT, HERE, -20),
    ("to the left 20", m.LEFT_RIGHT, HERE, -20), ("20 right", m.LEFT_RIGHT, HERE, 20),
    ("20 px to the right", m.LEFT_RIGHT, HERE, 20), ("0 left", m.LEFT_RIGHT, HERE, 0),
    ("200 nearer", m.NEARER_DEEPER, HERE, -200), ("200 closer", m.NEARER_DEEPER, HERE, -200),
    ("200 deeper", m.NEARER_DEEPER, HERE, 200), ("200 further", m.NEARER_DEEPER, HERE, 200),
    ("200 farther", m.NEARER_DEEPER, HERE, 200), ("200 away", m.NEARER_DEEPER, HERE, 200),
    ("4 dB softer", GAIN, HERE, -4), ("4 louder", GAIN, HERE, 4), ("-4 dB", GAIN, HERE, -4),
    ("4 dB quieter", GAIN, HERE, -4), ("10+5 left", m.LEFT_RIGHT, HERE, -15),
    ("100 Up", m.ABOVE_BELOW, HERE, -100),
    # sums
    ("540+20", m.PIXELS, HERE, 560), ("540 + 20", m.PIXELS, HERE, 560),
    ("540-20", m.PIXELS, HERE, 520), ("540 − 20", m.PIXELS, HERE, 520),
    ("1920/2", m.PIXELS, HERE, 960), ("1920 ÷ 2", m.PIXELS, HERE, 960), ("10*2", m.PIXELS, HERE, 20),
    ("10 × 2", m.PIXELS, HERE, 20), ("10×2", m.PIXELS, HERE, 20), ("(3+4)*2", m.PIXELS, HERE, 14),
    ("3+4*2", m.PIXELS, HERE, 11), ("10-4-3", m.PIXELS, HERE, 3), ("16/4/2", m.PIXELS, HERE, 2),
    ("-(3+4)", m.PIXELS, HERE, -7), ("2*-3", m.PIXELS, HERE, -6), ("10 px + 5 px", m.PIXELS, HERE, 15),
    ("50+25", m.OPACITY, HERE, 0.75), ("((2))", m.PIXELS, HERE, 2), ("90*2", m.DEGREES, HERE, 180),
    ("100/3", m.PIXELS, HERE, 33.333333333), ("2*1s", m.FRAMES, HERE, 60),
    # what changes what stands there, 40
    ("+5", m.PIXELS, HERE, 45), ("+ 5", m.PIXELS, HERE, 45), ("+5 px", m.PIXELS, HERE, 45),
    ("*2", m.PIXELS, HERE, 80), ("×2", m.PIXELS, HERE, 80), ("/2", m.PIXELS, HERE, 20),
    ("÷2", m.PIXELS, HERE, 20), ("-5", m.PIXELS, HERE, -5), ("5 less", m.PIXELS, HERE, 35),
    ("5 more", m.PIXELS, HERE, 45), ("5 px less", m.PIXELS, HERE, 35), ("+-5", m.PIXELS, HERE, 35),
    ("+1s", m.FRAMES, HERE, 70), ("1s less", m.FRAMES, HERE, 10), ("+2*3", m.PIXELS, HERE, 46),
    ("+5", m.OPACITY, replace(HERE, now=0.4), 0.45), ("*2", m.OPACITY, replace(HERE, now=0.4), 0.8),
    ("5 less", m.ABOVE_BELOW, replace(HERE, now=-100), -95),
    ("5 more", m.ABOVE_BELOW, replace(HERE, now=-100), -105),
    ("+5", m.ABOVE_BELOW, replace(HERE, now=-100), -95),
    ("5 less", m.ABOVE_BELOW, replace(HERE, now=100), 95),
    # shares of a side
    ("50 %", m.PIXELS, WIDE, 960), ("50%", m.LENGTH_PX, WIDE, 960), ("25 %", m.PIXELS, WIDE, 480),
    ("50 % + 20", m.PIXELS, WIDE, 980), ("100 % - 50", m.PIXELS, WIDE, 1870),
    ("10 % left", m.LEFT_RIGHT, WIDE, -192), ("+10 %", m.PIXELS, WIDE, 232), ("960", m.PIXELS, WIDE, 960),
    # several layers
    ("10 to 90", m.PIXELS, SEVERAL, 30), ("90 to 10", m.PIXELS, SEVERAL, 70),
    ("10 px to 90 px", m.PIXELS, SEVERAL, 30), ("10 % to 90 %", m.OPACITY, SEVERAL, 0.3),
    ("100 below to 100 above", m.ABOVE_BELOW, SEVERAL, 50), ("0 to 1s", m.FRAMES, SEVERAL, 7.5),
    ("random 10 to 90", m.PIXELS, SEVERAL, 30), ("Random 0 to 100", m.PIXELS, SEVERAL, 25),
    ("20", m.PIXELS, SEVERAL, 20), ("+5", m.PIXELS, SEVERAL, 45),
]  # fmt: skip


def _keys(*keys):
    """(frame, value) or (frame, value, ease), as data."""
    return [
        {"at": at, "value": value, **({"ease": ease[0]} if ease else {})}
        for at, value, *ease in keys
    ]


COURSES = [
    ("100 at 0, 60 at 5, 0 at 15 soft both", m.PIXELS,
     _keys((0, 100, "soft-both"), (5, 60, "soft-both"), (15, 0))),
    ("100 at 0, 60 at 5, home at 15 soft both", m.PIXELS,
     _keys((0, 100, "soft-both"), (5, 60, "soft-both"), (15, 0))),
    ("100 at 0, 0 at 20", m.PIXELS, _keys((0, 100), (20, 0))),
    ("100 at 0 then 0 at 20", m.PIXELS, _keys((0, 100), (20, 0))),
    ("100 at 0; 0 at 20", m.PIXELS, _keys((0, 100), (20, 0))),
    ("100 at 0,0 at 20", m.PIXELS, _keys((0, 100), (20, 0))),
    ("100, 0 at 20", m.PIXELS, _keys((0, 100), (20, 0))),
    ("12,5 at 0, 3,5 at 10", m.PIXELS, _keys((0, 12.5), (10, 3.5))),
    ("100 at 0 soft landing, 60 at 5 overshoot, 0 at 15", m.PIXELS,
     _keys((0, 100, "soft-landing"), (5, 60, "overshoot"), (15, 0))),
    ("100 at 0 hold, 0 at 20", m.PIXELS, _keys((0, 100, "hold"), (20, 0))),
    ("100 at 0, hold at 10, 0 at 20", m.PIXELS, _keys((0, 100), (10, 100), (20, 0))),
    ("100 at 0, 0 at 1s", m.PIXELS, _keys((0, 100), (30, 0))),
    ("100 at 0, 0 at 1:12", m.PIXELS, _keys((0, 100), (42, 0))),
    ("100 at frame 5, 0 at frame 20", m.PIXELS, _keys((5, 100), (20, 0))),
    ("100 below at 0, 60 above at 5, home at 10", m.ABOVE_BELOW, _keys((0, 100), (5, -60), (10, 0))),
    ("0 % at 0, 100 % at 10 linear", m.OPACITY, _keys((0, 0), (10, 1))),
    ("0 at 0 with soft start, 100 at 20", m.PIXELS, _keys((0, 0, "soft-start"), (20, 100))),
    ("0 at 0 spring 0.3, 100 at 20", m.PIXELS, _keys((0, 0, {"spring": 0.3}), (20, 100))),
    ("0 at 0, 100 at 20 bounce", m.PIXELS, _keys((0, 0, {"bounce": 3}), (20, 100))),
    ("0 at 0, 100 at 20 steps 6", m.PIXELS, _keys((0, 0, {"steps": 6}), (20, 100))),
    ("0 at 0, 50 at 10, 0 at 20 no overshoot", m.PIXELS,
     _keys((0, 0, "auto"), (10, 50, "auto"), (20, 0))),
    ("0 at 0 cubic-bezier(0.2, 0, 0, 1), 100 at 20", m.PIXELS,
     _keys((0, 0, {"bezier": [0.2, 0, 0, 1]}), (20, 100))),
    ("540+20 at 0, 0 at 10+5", m.PIXELS, _keys((0, 560), (15, 0))),
    ("50 at 12", m.PIXELS, _keys((12, 50))),
    ("0 at -5, 10 at 5", m.PIXELS, _keys((-5, 0), (5, 10))),
]  # fmt: skip

# (typed, measure, context, what is said of it, where)
REFUSED = [
    ("", m.PIXELS, HERE, "nothing is typed", 0), ("   ", m.PIXELS, HERE, "nothing is typed", 0),
    ("two", m.PIXELS, HERE, "a number is needed, got “two”", 0),
    ("100 ?", m.PIXELS, HERE, "“?” is not understood", 3),
    ("10 2", m.PIXELS, HERE, "“2” is not understood", 3),
    ("10 px px", m.PIXELS, HERE, "“px” is not understood", 6),
    ("1,920", m.PIXELS, HERE, "is 1920 or 1.920 meant?", 0),
    ("1e5", m.PIXELS, HERE, "“e” is not understood", 1),
    ("50 px", m.DEGREES, HERE, "measured in °", 3), ("50 %", m.PIXELS, HERE, "measured in px", 3),
    ("20 s", m.PIXELS, HERE, "measured in px", 3), ("20°", m.FRAMES, HERE, "measured in frames", 2),
    ("20 px", m.PLAIN, HERE, "has no unit", 3), ("5 px", CORNERS, HERE, "counts corners", 2),
    ("1:12", m.PIXELS, HERE, "is a time, and this value is none", 0),
    ("0:40", m.FRAMES, HERE, "30 frames in a second", 0),
    ("100 up", m.PIXELS, HERE, "does not go “up”", 4),
    ("100 left", m.ABOVE_BELOW, HERE, "does not go “left”", 4),
    ("-20 left", m.LEFT_RIGHT, HERE, "a sign and a direction", 0),
    ("left 20 right", m.LEFT_RIGHT, HERE, "one direction is enough", 8),
    ("1/0", m.PIXELS, HERE, "divided by 0", 1), ("/0", m.PIXELS, HERE, "divided by 0", 0),
    ("(3+4", m.PIXELS, HERE, "a “)” is missing", 4), ("3)", m.PIXELS, HERE, "“)” is not", 1),
    ("3+", m.PIXELS, HERE, "a number is needed", 2), ("*", m.PIXELS, HERE, "a number is needed", 0),
    ("+", m.PIXELS, HERE, "a number is needed", 0),
    ("+5", m.PIXELS, replace(HERE, now=None), "no value here yet", 0),
    ("5 less", m.PIXELS, replace(HERE, now=None), "no value here yet", 2),
    ("150 %", m.OPACITY, HERE, "at most 100 % is needed, got 150 %", 0),
    ("-5", m.BLUR, HERE, "at least 0 px is needed", 0), ("2", CORNERS, HERE, "at least 3 corners", 0),
    ("50", WEIGHT, HERE, "at least weight 100", 0),
    ("10 to 90", m.PIXELS, HERE, "spreads values over several layers", 0),
    ("random 10 to 90", m.PIXELS, HERE, "spreads values over several layers", 7),
    ("10 to many", m.PIXELS, SEVERAL, "a number is needed, got “many”", 6),
    ("100 at 0, 0 at 20", m.PIXELS, HERE, "takes no keyframes", 0),
    ("100 at 0, 60", m.PIXELS, KEYED, "“60” has no time", 10),
    ("100 at 5, 0 at 3", m.PIXELS, KEYED, "times in order are needed: 3 comes after 5", 10),
    ("100 at 0, 50 at 0", m.PIXELS, KEYED, "times in order are needed", 10),
    ("hold at 0, 50 at 10", m.PIXELS, KEYED, "begin with a value", 0),
    ("home at 0", m.PIXELS, replace(KEYED, rest=None), "no place of rest", 0),
    ("100 at 0, 60 at five", m.PIXELS, KEYED, "got “five”", 16),
    ("100 at 0 softly, 60 at 5", m.PIXELS, KEYED, "“softly” is not understood", 9),
    ("100 at 0,, 0 at 5", m.PIXELS, KEYED, "a value and its time", 9),
    ("(" * 60, m.PIXELS, HERE, "too many parentheses", 40), ("9" * 500, m.PIXELS, HERE, "at most 400", 0),
    ("9999999999", m.PIXELS, HERE, "too large", 0), ("½", m.PIXELS, HERE, "got “½”", 0),
    ("1 000", m.PIXELS, HERE, "“000” is not understood", 2),
    ("more", m.PIXELS, HERE, "a number is needed", 0), ("px", m.PIXELS, HERE, "a number is needed", 0),
]  # fmt: skip


class QuantitiesTest(TestCase):
    def test_each_value_means_what_is_typed(self):
        for typed, measure, context, value in VALUES:
            with self.subTest(typed=typed, unit=measure.unit or measure.before):
                self.assertAlmostEqual(read_quantity(typed, measure, context), value, 6)

    def test_courses_are_keyframes_where_these_may_stand(self):
        for typed, measure, keys in COURSES:
            with self.subTest(typed=typed):
                self.assertEqual(read_quantity(typed, measure, KEYED), Course(keys))

    def test_what_is_not_understood_is_said_with_its_place_and_what_would_do(self):
        for typed, measure, context, told, index in REFUSED:
            with self.subTest(typed=typed):
                with self.assertRaises(QuantityError) as caught:
                    read_quantity(typed, measure, context)
                self.assertIn(told, str(caught.exception))
                self.assertEqual(caught.exception.index, index)

    def test_two_hundred_forms_are_told_here(self):
        self.assertGreaterEqual(len(VALUES) + len(COURSES) + len(REFUSED), 200)

    def test_the_name_of_each_ease_is_read_as_that_ease(self):
        for ease, said in TRACK_EASES:
            if not isinstance(ease, dict) or not {"bezier", "points"} & set(ease):
                with self.subTest(said=said):
                    self.assertEqual(read_ease(said), ease)


@given(
    st.floats(-1e5, 1e5), st.sampled_from([m.PIXELS, m.ABOVE_BELOW, m.DEGREES, m.FRAMES, m.PERCENT])
)
def test_what_is_said_is_read_as_the_same(value, measure):
    said = measure.say(value)
    assert abs(read_quantity(said, measure) - value) <= 0.005 + 1e-9


class SaidAndReadTest(TestCase):
    def test_law(self):
        test_what_is_said_is_read_as_the_same()


@given(st.text(max_size=40))
def test_any_text_is_a_value_or_is_refused_in_words(text):
    try:
        read_quantity(text, m.PIXELS, KEYED)
    except QuantityError as refused:
        error = refused
    else:
        return
    assert str(error)
    assert 0 <= error.index <= len(text)


class AnyTextTest(TestCase):
    def test_law(self):
        test_any_text_is_a_value_or_is_refused_in_words()
