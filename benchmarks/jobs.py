"""The jobs that hands are measured by, each as a client would ask for it."""

import numpy as np

from balletto.lettering.layout import lay_out
from balletto.motion.poses import poses
from balletto.motion.turns import caret_at, clicks_of
from balletto.picture.frame import Picture, draw_frame
from balletto.scene.document import Scene
from balletto.scene.layers.clicks import ClicksLayer
from balletto.scene.layers.flurry import FlurryLayer

from .hands import JOBS, Hands, job

__all__ = ["JOBS"]

WORDS = "Winter moons"


def _values(hand: Hands, name: str, first: int, last: int) -> np.ndarray:
    return np.array(hand.poses(first, last)["values"][name])


def _pixels(scene: Scene, number: int) -> np.ndarray:
    """A frame as red, green and blue, (height, width, 3), 0 to 255."""
    pixels: np.ndarray = draw_frame(Picture(scene), number)[..., 2::-1].astype(int)
    return pixels


def _frame(scene: Scene, number: int) -> np.ndarray:
    """A frame as the light of its pixels, (height, width), 0 to 255."""
    light: np.ndarray = _pixels(scene, number).max(axis=-1)
    return light


def _weights(hand: Hands, move: str, first: int, last: int) -> np.ndarray:
    """How far the units of a move are away, (frames, units)."""
    return np.array(hand.poses(first, last)["moves"][move]["weights"])


@job("A", "fly home", 9)
def fly_home(hand: Hands) -> None:
    """Letters start at random heights and depths toward the camera, never sideways, are home by
    frame 20 and rest until 60 without overshoot; then each wobbles as it lands, tried stronger and
    weaker."""
    hand.words(WORDS)
    hand.say("letters from 300 above, 800 nearer by chance 5, one way in depth, over 20")
    rest = {name: _values(hand, name, 0, 60) for name in ("x", "y", "z")}
    assert not rest["x"].any()
    assert len(set(np.sign(rest["y"][0]))) > 1  # above and below
    assert np.ptp(rest["z"][0]) > 100
    assert (rest["z"][0] <= 0).all()
    assert not rest["y"][20:].any()
    assert (np.diff(np.abs(rest["y"]), axis=0) <= 1e-9).all()
    hand.go_on("m1", "swinging after at 3 Hz damped 30 %")
    calm = _values(hand, "y", 0, 90)
    assert (np.sign(calm[1:40]) != np.sign(calm[0])).any()  # it passes its place
    hand.scrub("t1.moves.m1.follow.damping", -30)
    stronger = _values(hand, "y", 20, 90)
    assert np.abs(stronger).max() > np.abs(calm[20:]).max()
    hand.scrub("t1.moves.m1.follow.damping", 60)
    assert np.abs(_values(hand, "y", 20, 90)).max() < np.abs(stronger).max()


@job("C", "wobble", 5)
def wobble(hand: Hands) -> None:
    """Outlines bent anew nine times a second; size and amount changed."""
    hand.words(WORDS)
    hand.say("outlines pushed by 6 px, anew 9 times a second")
    (effect,) = hand.scene.titles[0].effects
    assert (effect.kind, effect.every) == ("displace", "9/s")
    hand.scrub("t1.effects.0.size", 30)
    hand.scrub("t1.effects.0.amount", 30)
    (changed,) = hand.scene.titles[0].effects
    assert changed.size != effect.size
    assert changed.amount != effect.amount


@job("G", "rise and blur", 4)
def rise_and_blur(hand: Hands) -> None:
    """Letters rise 100 px and fade in over a second, with a long soft landing, the shutter open
    360 degrees, two frames apart."""
    hand.words(WORDS)
    hand.say("letters rise 100, fade, every 2, over 1s quick landing")
    hand.say("motion blur 360° of a frame")
    said = hand.poses(0, 60)
    assert said["values"]["y"][0][0] == 100
    assert said["values"]["opacity"][0][0] == 0
    assert said["moves"]["m1"]["delays"][:3] == [0, 2, 4]
    assert np.array(said["values"]["y"])[30, 0] == 0
    assert hand.scene.titles[0].motion_blur.angle == 360


@job("I", "bounce", 5)
def bounce(hand: Hands) -> None:
    """Each letter from 100 px below, 60 above, 30 below, home, five frames each, fading in over the
    first five; all eased, three frames apart."""
    hand.words(WORDS)
    hand.say(
        "letters from 100 below at 0, 60 above at 5, 30 below at 10, home at 15, "
        "0 % opaque at 0, 100 % opaque at 5, soft both, every 3"
    )
    y, opacity = _values(hand, "y", 0, 40), _values(hand, "opacity", 0, 40)
    assert y[[0, 5, 10, 15], 0].tolist() == [100, -60, 30, 0]
    assert y[[3, 8, 13, 18], 1].tolist() == [100, -60, 30, 0]
    assert opacity[[0, 5], 0].tolist() == [0, 1]
    assert abs(y[1, 0] - 100) < 160 / 5  # it starts softly


@job("J", "trail", 8)
def trail(hand: Hands) -> None:
    """Letters out of the depth over a second with a soft ramp, 50 hard copies a thousandth of a
    second apart; a second variant in outline only."""
    hand.words(WORDS)
    hand.say("letters from 2000 deeper, over 1s soft both")
    hand.say("trails 50 copies, one every 1 ms, each 100 % as opaque")
    (effect,) = hand.scene.titles[0].effects
    assert (effect.kind, effect.copies, round(effect.gap, 6)) == ("trail", 50, 0.03)
    assert _values(hand, "z", 0, 30)[[0, 30], 0].tolist() == [2000, 0]
    hand.value("t1.effects.0.outline", "2")
    assert hand.scene.titles[0].effects[0].outline == 2


@job("K", "tracking", 9)
def tracking(hand: Hands) -> None:
    """Letters open from fully collapsed over 38 frames with an eased curve; each casts a soft
    shadow on its neighbour; each appears one frame after the one before; another ease tried."""
    hand.words(WORDS)
    hand.say("letters open, over 38 soft both, every 1, hidden")
    hand.say("casts a shadow 4 right and 8 below, 10 soft, black, 60 % opaque")
    said = hand.poses(0, 60)
    x = np.array(said["values"]["x"])
    assert np.ptp(x[0]) > 100
    assert not x[59].any()
    assert said["moves"]["m1"]["delays"][:3] == [0, 1, 2]
    assert hand.scene.titles[0].effects[0].kind == "shadow"
    ease = hand.page.locator('[data-chip="t1.moves.m1.amount.keys.0.ease"]')
    hand.click(ease, "the ease")
    option = hand.page.get_by_role("option", name="quick landing", exact=True)
    hand.click(option.locator("visible=true"), "quick landing")
    assert hand.scene.titles[0].moves[0].amount.keys[0].ease == "quick-landing"


@job("O", "touched", 9)
def touched(hand: Hands) -> None:
    """A soft region passes in 20 frames: letters under it rise 100 px, double, turn, fade by half
    and change colour, with a floor outside; by words; then a seamless wave instead."""
    hand.words(WORDS)
    hand.say(
        "is taken to 100 above, 200 % of its size, turned 20°, 50 % opaque, coloured red "
        "by what stands inside a band through (0 px across, 540 px down at 0, then "
        "1920 px across, 540 px down at 20), turned 90°, 600 px wide, at least 10 %"
    )
    y = _values(hand, "y", 0, 20)
    reached = y.min(axis=0)
    assert (reached < -80).all()
    assert np.isclose(y.max(), -10)  # the floor
    hand.key("Escape")
    hand.key("2")
    assert hand.scene.titles[0].moves[0].unit == "word"
    hand.click(hand.page.locator('[aria-label^="Remove Is taken"]'), "remove")
    hand.say("letters 100 above, wave, every 2s, looping")
    scene = hand.scene
    wave = _values(hand, "y", 0, scene.length)
    np.testing.assert_allclose(wave[0], wave[-1], atol=1e-6)


@job("F", "roll", 10)
def roll(hand: Hands) -> None:
    """Three words of three colours roll upward, one after another, through a window of one line
    with soft upper and lower edges; each holds a while; the roll is eased."""
    hand.words("Orbit\nComet\nDusk")
    hand.say("120 frames long")
    hand.say("lines 0 × apart")
    hand.say("“Comet”, teal")
    hand.say("“Dusk”, #F2B705")
    hand.say("seen within the line, 24 px soft above and below")
    hand.say(
        "lines from 250 below at 0, home at 15, home at 30, 250 above at 45, soft both, every 30"
    )
    scene = hand.scene
    middle = scene.size[1] // 2
    # One word at a time is seen, each in its colour, and never out of the window.
    for frame, color in ((22, (255, 255, 255)), (52, (0, 128, 128)), (82, (242, 183, 5))):
        shown = _pixels(scene, frame)
        inked = np.abs(shown - np.array(color)).max(axis=-1) < 12
        assert inked.sum() > 5000
        others = (shown.max(axis=-1) > 90) & (np.abs(shown - np.array(color)).max(axis=-1) > 140)
        assert others.sum() < inked.sum() / 20
    for frame in range(0, 120, 10):
        light = _frame(scene, frame)
        assert light[: middle - 160].max() < 60
        assert light[middle + 160 :].max() < 60
    weights = np.array(hand.poses(0, 45)["moves"]["m1"]["delays"])
    assert weights.tolist() == [0, 30, 60]


@job("H", "two names", 24)
def two_names(hand: Hands) -> None:
    """A grey and a heavy white name slide in from the right between 24 and 48, blurred where they
    are fast, out from behind a bar that grows before and shrinks after; a curtain fades over all
    from 100 to 120."""
    hand.words("Ada Orr")
    hand.say("800 by 450 px, 24 frames a second, 120 frames long")
    hand.say("grey, weight 300, 52 px, at 520 px across, 190 px down")
    hand.say("a title “Ida Moon”, white, weight 900, 52 px, at 520 px across, 260 px down")
    hand.key("Control+a")
    hand.say("from 460 right, over 24, from frame 24, soft both")
    hand.say("motion blur 360° of a frame")
    hand.say("The bar: a rectangle of 8 px by 240 px, white, at 330 px across, 225 px down")
    hand.say("from 0 % of its height, over 20, soft both")
    hand.say("goes to 0 % of its height, over 20, from frame 60, soft both")
    hand.key("Control+a")
    hand.say("from behind the bar")
    hand.say("Curtain: a rectangle of 800 by 450 px, black")
    hand.say("from 0 % opaque, over 20, from frame 100, linear")
    scene = hand.scene
    assert (scene.size, scene.rate, scene.length) == ((800, 450), "24", 120)
    first, second = scene.titles
    assert (first.style.fill, second.style.fill) == ("#808080", "#FFFFFF")
    assert second.style.axes["wght"] - first.style.axes["wght"] == 600
    x = _values(hand, "x", 0, 119)
    assert x[[24, 48], 0].tolist() == [460, 0]
    steps = np.abs(np.diff(x[24:49, 0]))
    assert steps.argmax() in (11, 12)  # fastest midway
    assert _frame(scene, 10)[:, 340:].max() < 60  # nothing but the bar and the dark ground
    assert _frame(scene, 55)[150:300, 340:].max() > 200
    bar = [int((_frame(scene, n)[:, 330] > 200).sum()) for n in (0, 10, 40, 85)]
    assert bar[0] <= bar[1] < bar[2], bar
    assert bar[3] <= 1, bar
    assert _frame(scene, 119).max() < _frame(scene, 99).max() / 4


@job("L", "from the end", 8)
def from_the_end(hand: Hands) -> None:
    """A title at the lower right comes from off the left edge exactly level; made faster and
    slower by its end; its path bent."""
    hand.words(WORDS)
    hand.say("at the lower right")
    hand.say("from off the left, over 40, soft landing")
    x, y = _values(hand, "x", 0, 60), _values(hand, "y", 0, 60)
    assert _frame(hand.scene, 0)[:, :4].max() < 60
    assert not y.any()
    assert x[0, 0] < -500
    assert not x[40:].any()
    end = hand.page.locator(".crow .bar").first
    hand.drag(end, -60, 0, "the end of its bar", at=0.99)
    faster = _landing(hand)
    assert faster < 38
    hand.drag(end, 120, 0, "the end of its bar", at=0.99)
    assert _landing(hand) > faster + 10
    hand.go_on("m1", "0 px above at 0, 200 px above at 20, 0 px above at 60")
    bent = _values(hand, "y", 0, 60)
    assert bent.min() < -40
    assert bent[0, 0] == 0 == bent[60, 0]


def _landing(hand: Hands) -> int:
    """The frame from which on a title rests."""
    x = _values(hand, "x", 0, 89)[:, 0]
    return int(np.nonzero(x)[0].max()) + 1


@job("M", "spread", 24)
def spread(hand: Hands) -> None:
    """Twelve layers' starts over 30 frames along a curve, both directions; the growth keys of
    twelve layers likewise; a long sentence rising from behind an edge, three curves tried."""
    hand.words("Nine slow moons pass over the dome tonight")
    hand.say("60 px, at 900 px down")
    hand.say("seen within the line")
    hand.say("words from 90 below, every 2, over 40, soft landing")
    slow = _weights(hand, "m1", 0, 60)
    assert not _frame(hand.scene, 0).max() > 60  # all behind the edge
    for ease in ("soft both", "quick landing"):
        hand.say(ease)
        assert hand.scene.titles[0].moves[0].amount.keys[0].ease == ease.replace(" ", "-")
    assert np.abs(_weights(hand, "m1", 0, 60) - slow).max() > 0.1
    hand.say("12 rectangles of 20 px by 200 px, 400 px down")
    _spread(hand, "#several [data-open-spread]", bends=True)
    starts = [layer.span[0] for layer in hand.scene.layers if layer.kind == "shape"][::-1]
    assert (starts[0], starts[-1], len(starts)) == (0, 30, 12)
    assert np.ptp(np.diff(starts)) > 1  # along a curve
    _spread(hand, "#several [data-open-spread]", other_way=True)
    assert [x.span[0] for x in hand.scene.layers if x.kind == "shape"][::-1][::11] == [30, 0]
    hand.say("(0 % at 0, 100 % at 20) high")
    hand.click(hand.page.locator('[data-time-view="keyframes"]'), "Keyframes")
    hand.key("Control+a")
    _spread(hand, "#time-foot-keys [data-open-spread], .time__foot--keys [data-open-spread]")
    assert _growths(hand)[0] != _growths(hand)[-1]
    first = _growths(hand)
    _spread(hand, ".time__foot--keys [data-open-spread]", other_way=True)
    assert _growths(hand) == first[::-1]


def _growths(hand: Hands) -> list[float]:
    """When each bar begins to grow, from the front to the back."""
    bars = [layer for layer in hand.scene.layers if layer.kind == "shape"][::-1]
    return [layer.transform.scale.keys[0].at for layer in bars]


def _spread(hand: Hands, opens: str, bends: bool = False, other_way: bool = False) -> None:
    """Spreads what is selected over 30 frames."""
    hand.click(hand.page.locator(opens).first, "Spread")
    if bends:
        hand.drag(hand.page.locator('[data-spread-handle="0"]'), 70, 35, "the curve")
    if other_way:
        hand.click(hand.page.locator("#spread-descending"), "the last one first")
    field = hand.page.locator("#spread-span")
    if field.input_value() != "30":
        field.fill("30")
    hand.key("Enter")


@job("N", "pattern", 16)
def pattern(hand: Hands) -> None:
    """A row of thirty l across the picture; a soft travelling band widens, colours and opens them
    at one rhythm; digits typed instead; a second row upside down at the top; the scene four times
    in the quarters of another, two of them tinted."""
    hand.words("l" * 30)
    hand.say("150 px, spaced 260 ‰")
    hand.say(
        "is taken to 500 more weight, coloured #F2B705, spread by 200 ‰ "
        "by a sine wave from 0 % to 100 %, every 45 frames, looping"
    )
    row = _frame(hand.scene, 0)
    across = np.flatnonzero((row > 60).any(axis=0))
    assert across[0] < 250
    assert across[-1] > 1670
    hand.key("Control+d")
    hand.say("at the top, turned 180°")
    hand.click(hand.page.locator(".slab.is-selected .slab__text"), "its words")
    hand.key("Control+a")
    hand.words("0123456789" * 3)
    scene = hand.scene
    assert [title.text for title in scene.titles] == ["l" * 30, "0123456789" * 3]
    top = scene.titles[1]
    assert top.transform.rotation[2] == 180
    assert top.moves == scene.titles[0].moves
    hand.click(hand.page.locator(".crumbs a").first, "the project")
    hand.click(hand.page.get_by_role("button", name="New scene").first, "New scene")
    hand.page.wait_for_selector("#canvas[data-shown]")
    hand.page.wait_for_timeout(400)
    hand.key("Delete")
    hand.say("2 scenes “New scene”, 50 % large, at 480 to 1440 px across, 270 px down")
    hand.say("tinted #F2B705")
    hand.say("2 scenes “New scene”, 50 % large, at 480 to 1440 px across, 810 px down")
    whole = hand.scene
    quarters = [layer for layer in whole.layers if layer.kind == "scene"]
    assert [bool(layer.effects) for layer in quarters] == [True, True, False, False]
    drawn = _frame(whole, 10)
    for down in (0, 540):
        for left in (0, 960):
            assert (drawn[down : down + 540, left : left + 960] > 60).sum() > 5000


@job("Q", "last letter", 14)
def last_letter(hand: Hands) -> None:
    """The last letter flies in turning and shrinking, the rest slides out from under its place,
    fading in; a zoom blur over all fades away."""
    hand.words(WORDS)
    hand.say("“s” from 700 right and 300 above, 400 % of its size, turned 360°, over 24")
    hand.say("whole “Winter moon” from 300 right and 0 % opaque, over 24, from frame 24")
    hand.say("an adjustment")
    hand.say("zoom blur (20 % at 24, 0 % at 50)")
    x, size = _values(hand, "x", 0, 60), _values(hand, "scale_x", 0, 60)
    turn = _values(hand, "rotation", 0, 60)
    assert (x[0, -1], size[0, -1], turn[0, -1]) == (700, 4, 360)
    assert (x[24, -1], size[24, -1], turn[24, -1]) == (0, 1, 0)
    rest = _weights(hand, "m2", 0, 60)
    assert (rest[:25] == 1).all()
    assert not rest[48:].any()
    scene = hand.scene
    alone, whole = (int((_frame(scene, frame) > 200).sum()) for frame in (24, 60))
    assert 0 < alone < whole / 4  # the rest is not seen before
    adjustment = scene.layers[-1]
    assert (adjustment.kind, adjustment.effects[0].kind) == ("adjustment", "zoom-blur")


@job("B", "typewriter", 6)
def typewriter(hand: Hands) -> None:
    """Letters appear one by one, made faster by one drag; a caret goes with them; a click sounds at
    each."""
    hand.words(WORDS)
    hand.click(hand.page.locator("#open-gallery"), "add a move")
    hand.click(hand.page.locator('[data-add-move="typed"]'), "the typewriter")
    slow = clicks_of(hand.scene, _clicks(hand.scene)).frames
    hand.scrub("t1.moves.m1.stagger.gap", -14)
    scene = hand.scene
    title, frames = scene.titles[0], clicks_of(scene, _clicks(scene)).frames
    assert len(frames) == len(WORDS.replace(" ", ""))
    assert 0 < frames[-1] < slow[-1]
    seen = _values(hand, "opacity", 0, int(frames[-1]) + 3)
    for number, frame in enumerate(frames):
        assert seen[int(np.ceil(frame)) + 1, number] == 1
    layout = lay_out(scene, title)
    ends = layout.boxes["character"][:, 2].tolist()
    assert title.caret is not None
    for number, frame in enumerate(frames.tolist()):
        place = caret_at(scene, title, layout, title.caret, frame)
        assert place is not None
        assert place.x == ends[number]


def _clicks(scene: Scene) -> ClicksLayer:
    """The clicks of a scene that has some."""
    return next(layer for layer in scene.layers if isinstance(layer, ClicksLayer))


@job("D", "hatch", 6)
def hatch(hand: Hands) -> None:
    """The title filled with scribbled strokes, drawn on over 40 frames; spacing and width
    changed."""
    hand.words(WORDS)
    hand.say("scribbled, strokes of 4 px every 12 px, drawn to (0 % at 0, 100 % at 40)")
    inks = [_frame(hand.scene, frame).sum() for frame in (0, 20, 40)]
    ground = _frame(hand.scene, 0).min() * _frame(hand.scene, 0).size
    assert inks[0] - ground < (inks[2] - ground) * 0.05
    assert inks[0] < inks[1] < inks[2]
    hand.scrub("t1.effects.0.spacing", 40)
    hand.scrub("t1.effects.0.width", 4)
    effect = hand.scene.titles[0].effects[0]
    assert effect.spacing > 12  # type: ignore[attr-defined]
    assert effect.width > 4  # type: ignore[attr-defined]
    assert _frame(hand.scene, 40).sum() != inks[2]


@job("E", "morph", 5)
def morph(hand: Hands) -> None:
    """HELLO turns into GOODBYE over 40 frames, letters one after another."""
    hand.words("HELLO")
    hand.say("letters become “GOODBYE”, over 40 frames, every 3")
    scene = hand.scene
    title = scene.titles[0]
    before, after = (title.model_copy(update={"moves": (), "text": text}) for text in _TEXTS)
    for frame, plain in ((0, before), (60, after)):
        alone = scene.model_copy(update={"layers": (plain,)})
        assert np.abs(_frame(scene, frame) - _frame(alone, frame)).max() < 16
    weights = _weights(hand, title.moves[0].id, 0, 60)
    assert (np.diff(weights[20]) < 0).all()  # the first are further on than the last
    assert weights[0].max() == 0
    assert weights[40, 0] == 1


_TEXTS = ("HELLO", "GOODBYE")


@job("P", "burst", 30)
def burst(hand: Hands) -> None:
    """32 short lines in a growing ring, drawn on and off, in some sectors only, three sizes; seven
    half circles drawn on and off, each smaller and turned by chance, all turning 180 degrees; forty
    small shapes thrown from the middle and falling; a tagline whose letters rise with an overshoot
    and grow."""
    hand.words("Every lamp a planet")
    hand.say("letters from 80 below, 40 % of its size, over 24 with overshoot, every 1")
    on_and_off = "drawn from (0 % at 20, 100 % at 50) to (0 % at 0, 100 % at 30)"
    for height, start, end in ((70, 120, 420), (50, 90, 320), (30, 60, 220)):
        hand.say(
            f"a line from 0 px across, 0 px down to 0 px across, −{height} px down, "
            "a line of 6 px, "
            f"{on_and_off}, 32 copies in a ring of ({start} px at 0, {end} px at 40), "
            "only from 300° to 60°, only from 120° to 240°"
        )
    hand.say(
        f"an arc of 500 px by 500 px over 180°, {on_and_off}, 7 copies in a row, each 0 px by 0 px "
        "from the one before, the last 30 % as large, by chance turned 40°, turned (0° at 0, 180° "
        "at 80)"
    )
    hand.say("a burst of 40 stars, falling by 900 px a second")
    scene = hand.scene
    rings = [layer for layer in scene.layers if getattr(layer.formation, "cut", None)]
    assert len(rings) == 3, [(e.kind, e.formation) for e in scene.layers]
    for layer in rings:
        told = poses(scene, layer.id, [10, 40])["copies"]
        out = np.hypot(told["x"], told["y"])
        assert out[0].max() < out[1].max()
        seen = np.count_nonzero(told["opacity"][0])
        assert 0 < seen < 32
    arcs = next(each for each in scene.layers if each.formation and each not in rings)
    told = poses(scene, arcs.id, [40])["copies"]
    assert (np.diff(told["scale_x"][0]) < 0).all()
    assert len(set(np.round(told["rotation"][0], 3))) == 7
    flurry = next(layer for layer in scene.layers if isinstance(layer, FlurryLayer))
    pieces = poses(scene, flurry.id, [1, 30])["pieces"]
    assert len(pieces["born"]) == 40
    assert np.abs(pieces["x"][0]).max() < np.abs(pieces["x"][1]).max()
    assert np.mean(pieces["y"][1]) > 40  # they fall
    assert (_values(hand, "y", 0, 60) < 0).any()  # it goes beyond its place
    assert _values(hand, "scale_x", 0, 0).max() < 0.5
    assert _frame(scene, 80).sum() < _frame(scene, 25).sum()
