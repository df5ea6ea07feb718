"""The jobs that hands are measured by, each as a client would ask for it."""

import numpy as np

from .hands import Hands, job

WORDS = "Winter moons"


def _values(hand: Hands, name: str, first: int, last: int) -> np.ndarray:
    return np.array(hand.poses(first, last)["values"][name])


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
