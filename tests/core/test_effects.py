"""What effects, masks, mattes, groups and the blur of motion mean, in numbers."""

from unittest import TestCase, mock

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.picture.canvases.canvas import RecordingCanvas
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.layers.title import PreparedTitle
from balletto.picture.letterforms.outlines import displaced
from balletto.raster.pixel_buffer import PixelBuffer, Scale
from balletto.scene import files
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.errors import SceneError

from .scenes import scene_data
from .test_pictures import shape, title

PLAIN = Scale(1.0, 1.0, 400, 300, margin=1000)
BAR = {"kind": "rectangle", "size": [20, 60]}
WHITE = {"fill": "#FFFFFF", "stroke": None}


def spot(value=255):
    """A buffer of 400 x 300 with a square of light in its middle."""
    buffer = PixelBuffer.empty(0, 0, 400, 300)
    buffer.pixels[140:160, 190:210] = value
    return buffer


def done(kind, buffer=None, **values):
    return EFFECT_KINDS[kind].apply(buffer or spot(), values, PLAIN)


def light(buffer):
    """The sum of the opacity of a buffer."""
    return buffer.pixels[..., 3].sum(dtype=float)


def spread(buffer, axis):
    """The standard deviation of the light of a buffer along an axis (0 down, 1 across)."""
    share = buffer.pixels[..., 3].sum(axis=1 - axis, dtype=float)
    at = np.arange(len(share))
    middle = (share * at).sum() / share.sum()
    return np.sqrt((share * (at - middle) ** 2).sum() / share.sum())


def drawn(*layers, frame=0, size=(160, 90), **changes):
    """The opacity of each pixel, 0..255, of layers on no ground."""
    data = scene_data(layers=list(layers), size=list(size), background={"kind": "none"}, **changes)
    return draw_frame(Picture(files.from_data(data)), frame)


class EffectTest(TestCase):
    @settings(max_examples=12, deadline=None)
    @given(st.floats(0.5, 40), st.floats(0.5, 40))
    def test_a_blur_keeps_the_sum_of_light_and_spreads_it_as_a_gaussian(self, x, y):
        # So much light that what is spread thin is not lost below a step of 255.
        buffer = PixelBuffer.empty(0, 0, 400, 300)
        buffer.pixels[110:190, 160:240] = 255
        soft = done("blur", buffer, x=x, y=y)
        self.assertAlmostEqual(light(soft) / light(buffer), 1, delta=0.02)
        for axis, deviation in ((1, x), (0, y)):
            # That of the square is added to that of the Gaussian, as squares.
            wanted = np.hypot(deviation, spread(buffer, axis))
            self.assertAlmostEqual(spread(soft, axis) / wanted, 1, delta=0.05)

    def test_a_smear_is_as_long_as_it_says_and_keeps_the_light(self):
        smeared = done("directional-blur", length=60.0, angle=0.0)
        self.assertAlmostEqual(light(smeared) / light(spot()), 1, delta=0.01)
        across = np.flatnonzero(smeared.pixels[..., 3].any(axis=0))
        self.assertAlmostEqual(np.ptp(across) + 1, 80, delta=2)
        down = np.flatnonzero(smeared.pixels[..., 3].any(axis=1))
        self.assertEqual(np.ptp(down) + 1, 20)

    def test_a_zoom_smears_away_from_its_point_alone(self):
        smeared = done("zoom-blur", amount=50.0, x=100.0, y=150.0)
        across = np.flatnonzero(smeared.pixels[..., 3].any(axis=0)) + smeared.left
        # From 190 to 210, that is 90 to 110 away: the far edge goes half as far again.
        self.assertAlmostEqual(across[0], 190, delta=1)
        self.assertAlmostEqual(across[-1], 100 + 110 * 1.5, delta=2)

    def test_a_glow_adds_light_around_and_leaves_the_middle(self):
        glowing = done("glow", radius=8.0, strength=100.0, color="#FF0000")
        place = (150 - glowing.top, 200 - glowing.left)
        self.assertEqual(glowing.pixels[place].tolist(), [255, 255, 255, 255])
        beside = glowing.pixels[150 - glowing.top, 216 - glowing.left]
        self.assertGreater(beside[2], 30)
        self.assertEqual(beside[0], 0)

    def test_an_outline_reaches_its_width_to_all_sides(self):
        for width in (1.0, 4.0, 20.0, 70.0):
            lined = done("outline", width=width, color="#00FF00")
            for axis in (0, 1):
                seen = np.flatnonzero(lined.pixels[..., 3].any(axis=1 - axis))
                self.assertAlmostEqual(np.ptp(seen) + 1, 20 + 2 * width, delta=1)
            # A disc: what is within its width of a corner is reached, what is farther is not.
            corner = np.array([159 - lined.top, 209 - lined.left])
            for away, seen in ((0.9, True), (1.25, False)):
                y, x = np.round(corner + away * (width + 0.5) / np.sqrt(2)).astype(int)
                if width >= 4:
                    self.assertEqual(lined.pixels[y, x, 3] > 128, seen, (width, away))

    def test_colours_become_what_is_said(self):
        buffer = spot()
        buffer.pixels[140:160, 190:210, :3] = (0, 0, 255)  # red, as blue, green, red
        red = {
            "tint": {"color": "#FFFFFF", "amount": 100.0},
            "hue": {"turn": 0.0, "saturation": 0.0},
        }
        for kind, values in red.items():
            blue, green, red_, alpha = done(kind, buffer, **values).pixels[150, 200]
            self.assertTrue(blue == green == red_, kind)
            self.assertAlmostEqual(int(blue), 0.2126 * 255, delta=2)
            self.assertEqual(alpha, 255)
        half = done("light", buffer, brightness=50.0, contrast=100.0).pixels[150, 200]
        self.assertAlmostEqual(int(half[2]), 127.5, delta=1)
        flat = done("light", buffer, brightness=100.0, contrast=0.0).pixels[150, 200]
        np.testing.assert_allclose(flat[:3], 127.5, atol=1)
        same = done("hue", buffer, turn=360.0, saturation=100.0).pixels
        self.assertLessEqual(np.abs(same.astype(int) - buffer.pixels).max(), 1)

    def test_a_shadow_is_as_opaque_as_what_casts_it(self):
        cast = {"kind": "shadow", "x": 40, "y": 0, "softness": 0, "opacity": 0.5}
        for opacity in (1, 0.5):
            transform = {"position": [60, 45, 0], "opacity": opacity}
            made = drawn(shape(shape=BAR, **WHITE, effects=[cast], transform=transform))
            self.assertAlmostEqual(int(made[45, 100, 3]), 127 * opacity, delta=1)
            self.assertEqual(made[45, 100, :3].tolist(), [0, 0, 0])

    def test_a_shadow_is_as_soft_however_large_the_layer_is_drawn(self):
        """Softness counts in px of the picture: 8 px at twice the size are no 16."""
        cast = {"kind": "shadow", "x": 0, "y": 0, "softness": 8, "opacity": 1}
        for scale in (1, 2, 0.5):
            tall = {"kind": "rectangle", "size": [40 / scale, 400 / scale]}
            transform = {"position": [80, 45, 0], "scale": [scale, scale]}
            made = drawn(shape(shape=tall, **WHITE, effects=[cast], transform=transform))
            # One deviation from the edge a Gaussian edge has 16 %.
            self.assertAlmostEqual(made[45, 100 + 8, 3] / 255, 0.16, delta=0.04, msg=scale)

    def test_a_shadow_falls_on_the_letters_before(self):
        """In reading order on the one before; the other way round on the one after."""
        cast = {"kind": "shadow", "x": 0, "y": 0, "softness": 0, "color": "#FF0000"}
        for order, kept in (("reading", 1), ("reverse", 0)):
            canvas = RecordingCanvas()
            made = title(text="AB", effects=[cast], draw_order=order)
            Picture(files.from_data(scene_data(layers=[made]))).draw(canvas, 0)
            fills = [call[3] for call in canvas.calls if call[0] == "draw"]
            self.assertEqual(fills, ["#FF0000", "#F2B705"] * 2)
            places = [call[1] for call in canvas.calls if call[0] == "draw"]
            first = min(number for number in places[1][0][1][::2])
            last = min(number for number in places[3][0][1][::2])
            self.assertEqual(first < last, bool(kept))

    def test_a_trail_is_copies_at_earlier_times(self):
        slide = {
            "id": "m1",
            "pose": {"x": -300, "rotation": 90},
            "amount": {
                "keys": [{"at": 0, "value": 1, "ease": "soft-both"}, {"at": 30, "value": 0}]
            },
        }
        trail = {"kind": "trail", "copies": 4, "gap": 1.5, "fade": 0.5, "shrink": 0.5}

        def letters(frame, **more):
            canvas = RecordingCanvas()
            data = scene_data(layers=[title(text="O", moves=[slide], **more)])
            Picture(files.from_data(data)).draw(canvas, frame)
            return [call for call in canvas.calls if call[0] == "draw"]

        found = letters(12, effects=[trail])
        self.assertEqual(len(found), 5)
        for back, call in zip((4, 3, 2, 1, 0), found, strict=True):
            plain = letters(12 - 1.5 * back)[0]
            matrix, wanted = np.array(call[2]).reshape(3, 3), np.array(plain[2]).reshape(3, 3)
            size = np.linalg.norm(matrix[:2, :2], 2)
            self.assertAlmostEqual(size, 0.5**back, places=6)
            # It stands where the letter stood, drawn toward the layer's own place as it shrinks.
            home = np.array([80, 62])
            away = wanted[:2, :2] @ [0, 0] + wanted[:2, 2] - home
            there = matrix[:2, 2] - home
            np.testing.assert_allclose(there, away * 0.5**back, atol=1e-6)
            self.assertAlmostEqual(call[4], 0.5**back)

    def test_a_displacement_holds_for_its_tick_and_is_bounded(self):
        commands = (("move", (0, 0)), ("line", (100, 0)), ("curve", (120, 30, 90, 60, 0, 80)))
        one, same, other = (displaced(commands, 20, 6, 1, tick) for tick in (3, 3, 4))
        self.assertEqual(one, same)
        self.assertNotEqual(one, other)
        still = displaced(commands, 20, 0, 1, 3)
        for (verb, moved), (other_verb, plain) in zip(one, still, strict=True):
            self.assertEqual(verb, other_verb)
            self.assertLessEqual(np.abs(np.subtract(moved, plain)).max(initial=0), 6)
        # What is cut into pieces is the same line as before.
        np.testing.assert_allclose(still[-1][1][-2:], (0, 80), atol=1e-9)

    def by_reach(self, share, **more):
        """The frame of "Orb" whose first letter alone a move takes `share` of the way to a pose."""
        first = {"kind": "sweep", "low": 0, "high": 1, "measure": "units"}
        pose = more.pop("pose")
        moves = [{"id": "m1", "pose": pose, "amount": share, "reach": [first]}]
        return drawn(title(moves=moves, **more)).astype(int)

    def test_moves_bend_the_form_of_the_letters_that_they_reach(self):
        plain = self.by_reach(0, pose={"displace": 6})
        bent = self.by_reach(1, pose={"displace": 6})
        columns = np.nonzero(np.abs(bent - plain)[..., 3].max(axis=0) > 20)[0]
        self.assertGreater(len(columns), 10)
        # The first letter alone, which lies at the left.
        self.assertLess(columns.max(), 75)
        twice = self.by_reach(1, pose={"displace": 12})
        away = [np.abs(each - plain)[..., 3].sum() for each in (bent, twice)]
        self.assertGreater(away[1], away[0] * 1.2)
        # On top of what the whole layer has.
        layer = {"effects": [{"kind": "displace", "amount": 6}]}
        both = self.by_reach(1, pose={"displace": 6}, **layer)
        alone = self.by_reach(0, pose={"displace": 6}, **layer)
        self.assertGreater(np.abs(both - alone)[:, :75, 3].sum(), 5000)
        self.assertEqual(np.abs(both - alone)[:, 90:, 3].sum(), 0)

    def test_moves_take_the_shadow_of_the_letters_that_they_reach(self):
        cast = {"effects": [{"kind": "shadow", "y": 25, "softness": 0, "opacity": 1}]}
        below = slice(72, 90)
        whole, half, none = (
            self.by_reach(share, pose={"shadow": 0}, **cast)[below, ..., 3] for share in (0, 0.5, 1)
        )
        first, others = slice(0, 30), slice(95, 160)
        self.assertGreater(whole[:, first].sum(), 200)
        self.assertAlmostEqual(half[:, first].sum() / whole[:, first].sum(), 0.5, delta=0.02)
        self.assertEqual(none[:, first].sum(), 0)
        np.testing.assert_array_equal(none[:, others], whole[:, others])

    def test_effects_never_reach_beyond_their_limits(self):
        """However far keys overshoot, or what a value is tied to goes."""
        keys = [
            {"at": 0, "value": 0, "ease": {"bezier": [0.3, -9, 0.6, 9]}},
            {"at": 30, "value": 1},
        ]
        faded = {"kind": "shadow", "opacity": {"keys": keys}}
        tied = {"kind": "blur", "x": {"tie": {"to": "scene.camera.distance", "gain": 100}}, "y": 0}
        for effect in (faded, tied):
            for frame in (8, 22):
                drawn(title(effects=[effect]), frame=frame)


class MotionBlurTest(TestCase):
    def bar(self, **blur):
        """A bar of 20 px that moves 16 px a frame."""
        keys = [{"at": 0, "value": [0, 45, 0]}, {"at": 10, "value": [160, 45, 0]}]
        layer = shape(shape=BAR, **WHITE, transform={"position": {"keys": keys}}, motion_blur=blur)
        return drawn(layer, frame=5)[45, :, 3].astype(float)

    def test_a_moving_bar_is_as_long_as_speed_and_shutter_say(self):
        for angle in (90, 180, 360):
            row = self.bar(angle=angle, samples=64)
            seen = np.flatnonzero(row > 1)
            self.assertAlmostEqual(np.ptp(seen) + 1, 20 + 16 * angle / 360, delta=1.5)
            self.assertAlmostEqual(row.sum() / 255, 20, delta=0.2)
            self.assertAlmostEqual((row * np.arange(160)).sum() / row.sum(), 79.5, delta=0.2)

    def test_the_phase_shifts_it_in_time(self):
        early, late = self.bar(angle=180, phase=-90), self.bar(angle=180, phase=90)
        middle = [(row * np.arange(160)).sum() / row.sum() for row in (early, late)]
        self.assertAlmostEqual(middle[1] - middle[0], 8, delta=0.3)

    def test_what_stands_still_stays_sharp(self):
        still = shape(shape=BAR, **WHITE)
        plain, blurred = drawn(still), drawn({**still, "motion_blur": {"angle": 360}})
        np.testing.assert_array_equal(plain, blurred)

    def test_colours_that_pass_mix_in_linear_light(self):
        """Half of red and half of green in time: 188 of 255 each, not 128."""
        keys = [{"at": 0, "value": "#FF0000", "ease": "hold"}, {"at": 5, "value": "#00FF00"}]
        tint = {"id": "m1", "unit": "title", "pose": {"fill": {"keys": keys}}}
        made = title(text="I", moves=[tint], motion_blur={"angle": 360, "samples": 16})
        pixels = drawn({**made, "style": {**made["style"], "size": 100}}, frame=5)
        solid = pixels[pixels[..., 3] == 255]
        np.testing.assert_allclose(np.median(solid, axis=0)[1:3], 188, atol=2)

    def test_a_title_at_rest_is_drawn_once_and_as_all_its_samples_would_be(self):
        """Whatever may still change of it: shadows, bumps, strokes, carets, windows, tints."""
        keys, share = (
            {"keys": [{"at": 0, "value": 0}, {"at": 9, "value": end}]} for end in (30, 1)
        )
        bumps = {"kind": "displace", "size": 8, "amount": 3, "every": "12/s"}
        strokes = {"kind": "hatch", "width": 2, "spacing": 4, "every": "8/s"}
        turns = {"id": "m1", "pose": {"opacity": 0}, "stagger": {"order": "forward", "gap": 2}}
        shift = {
            "position": {"keys": [{"at": 0, "value": [9, 40, 0]}, {"at": 9, "value": [90] * 3}]}
        }
        layers = {
            "rest": {},
            "moves": {"moves": [{**turns, "amount": share}]},
            "place": {"transform": shift},
            "window": {"window": {"of": "line"}, "transform": shift},
            "tint": {"moves": [{"id": "m1", "pose": {"fill": "#FF0000"}, "amount": share}]},
            "shadow": {"effects": [{"kind": "shadow"}]},
            "shadow with keys": {"effects": [{"kind": "shadow", "x": keys}]},
            "bumps": {"effects": [bumps]},
            "bumps of a move": {"moves": [{"id": "m1", "pose": {"displace": 5}}]},
            "strokes": {"effects": [strokes]},
            "caret": {"moves": [turns], "caret": {"move": "m1", "blink": 0.1}},
        }
        still = []
        for name, more in layers.items():
            made = {**title(), "motion_blur": {"angle": 360}, **more}
            for frame in (2, 5, 8):
                with self.subTest(name, frame=frame):
                    quick = drawn(made, frame=frame)
                    with mock.patch.object(PreparedTitle, "_is_still", return_value=False) as asked:
                        np.testing.assert_array_equal(quick, drawn(made, frame=frame))
                    asked.assert_called()
            scene = files.from_data({**scene_data(), "layers": [made]})
            times = 5 + np.arange(12) / 12
            samples = Picture(scene).nodes(RecordingCanvas(), 5)[0].samples
            ready = PreparedTitle(scene, scene.layers[0], lambda _: None)
            if len(ready.drawn(RecordingCanvas(), times).samples) == len(samples) == 1:
                still.append(name)
        self.assertEqual(still, ["rest", "shadow"])

    def test_the_scene_has_a_shutter_for_all(self):
        keys = [{"at": 0, "value": [0, 45, 0]}, {"at": 10, "value": [160, 45, 0]}]
        layer = shape(shape=BAR, **WHITE, transform={"position": {"keys": keys}})
        whole = drawn(layer, frame=5, motion_blur={"angle": 180})
        own = drawn({**layer, "motion_blur": {"angle": 180}}, frame=5)
        np.testing.assert_array_equal(whole, own)
        none = drawn({**layer, "motion_blur": {"angle": 0}}, frame=5, motion_blur={"angle": 180})
        np.testing.assert_array_equal(none, drawn(layer, frame=5))


class CutTest(TestCase):
    def field(self, **more):
        return shape(shape={"kind": "rectangle", "size": [160, 90]}, **WHITE, **more)

    def test_a_mask_lets_through_what_it_covers(self):
        made = drawn(self.field(masks=[{"kind": "rectangle", "size": [40, 30]}]))[..., 3]
        wanted = np.zeros((90, 160))
        wanted[30:60, 60:100] = 255
        np.testing.assert_array_equal(made, wanted)

    def test_masks_are_joined(self):
        left = {"kind": "rectangle", "size": [60, 40], "center": [-20, 0]}
        right = {"kind": "rectangle", "size": [60, 40], "center": [20, 0]}
        for mode, columns in (("add", 100), ("subtract", 40), ("intersect", 20)):
            made = drawn(self.field(masks=[left, {**right, "mode": mode}]))[45, :, 3]
            self.assertEqual((made == 255).sum(), columns, mode)
        made = drawn(self.field(masks=[{**left, "invert": True}]))[45, :, 3]
        self.assertEqual((made == 255).sum(), 100)
        made = drawn(self.field(masks=[{**left, "mode": "subtract"}]))[45, :, 3]
        self.assertEqual((made == 255).sum(), 100)

    def test_feather_and_expansion(self):
        mask = {"kind": "rectangle", "size": [60, 400]}
        for expand, width in ((10, 80), (-10, 40)):
            made = drawn(self.field(masks=[{**mask, "expand": expand}]))[45, :, 3]
            self.assertEqual((made > 127).sum(), width)
        soft = drawn(self.field(masks=[{**mask, "feather": 6}]))[45, :, 3].astype(float)
        self.assertAlmostEqual(soft.sum() / 255, 60, delta=0.5)
        # One deviation from the edge a Gaussian edge has 84 %, or 16 %.
        self.assertAlmostEqual(soft[50 + 6] / 255, 0.84, delta=0.03)
        self.assertAlmostEqual(soft[50 - 7] / 255, 0.16, delta=0.03)

    def test_a_mask_moves_with_its_layer_unless_it_is_fixed(self):
        mask = {"kind": "rectangle", "size": [40, 30]}
        place = {"position": [110, 45, 0]}
        for fixed, middle in ((False, 110), (True, 80)):
            center = [80, 45] if fixed else [0, 0]
            masks = [{**mask, "fixed": fixed, "center": center}]
            columns = np.flatnonzero(drawn(self.field(masks=masks, transform=place))[45, :, 3])
            self.assertEqual(columns.mean(), middle - 0.5)

    def test_a_matte_cuts_where_it_says(self):
        source = shape(id="m", shape=BAR, fill="#808080", stroke=None)
        for by, invert, inside, outside in (
            ("alpha", False, 255, 0),
            ("alpha", True, 0, 255),
            ("luminance", False, 128, 0),
            ("luminance", True, 127, 255),
        ):
            matte = {"layer": "m", "by": by, "invert": invert}
            made = drawn(source, self.field(matte=matte))[45, :, 3]
            self.assertEqual((int(made[80]), int(made[20])), (inside, outside))

    def test_a_matte_is_not_drawn_unless_it_is_to_be(self):
        source = shape(id="m", shape=BAR, **WHITE)
        moved = {"position": [20, 45, 0]}
        small = shape(shape=BAR, **WHITE, transform=moved)
        for visible in (False, True):
            matte = {"layer": "m", "visible": visible}
            made = drawn(source, {**small, "matte": matte})[45, :, 3]
            self.assertEqual(made[80] > 0, visible)


class GroupTest(TestCase):
    GROUP = {"id": "g1", "kind": "group", "span": [0, 90]}

    def test_a_group_is_as_opaque_as_one(self):
        """Where its layers overlap, nothing shows through that would not from one alone."""
        group = {**self.GROUP, "transform": {"opacity": 0.5}}
        made = drawn(group, *(shape(id=f"s{n}", shape=BAR, **WHITE, group="g1") for n in (1, 2)))
        self.assertAlmostEqual(int(made[45, 80, 3]), 128, delta=1)

    def test_layers_stand_and_turn_with_their_group(self):
        turned = {"position": [80, 45, 0], "rotation": [0, 0, 90]}
        inner = shape(shape=BAR, **WHITE, group="g1", transform={"position": [0, 0, 0]})
        made = drawn({**self.GROUP, "transform": turned}, inner)[..., 3]
        self.assertEqual(((made[45] == 255).sum(), (made[:, 80] == 255).sum()), (60, 20))

    def test_a_group_hides_and_ends_with_all_in_it(self):
        inner = shape(shape=BAR, **WHITE, group="g1")
        self.assertFalse(drawn({**self.GROUP, "on": False}, inner).any())
        self.assertFalse(drawn({**self.GROUP, "span": [10, 20]}, inner, frame=5).any())
        self.assertTrue(drawn({**self.GROUP, "span": [10, 20]}, inner, frame=15).any())

    def test_solo_of_a_group_shows_what_is_in_it(self):
        inner, other = shape(shape=BAR, group="g1"), shape(shape=BAR, id="s2")
        scene = files.from_data(scene_data(layers=[{**self.GROUP, "solo": True}, inner, other]))
        self.assertEqual(scene.shown, {"g1", "s1"})
        inside = {**inner, "solo": True}
        scene = files.from_data(scene_data(layers=[self.GROUP, inside, other]))
        self.assertEqual(scene.shown, {"g1", "s1"})

    def test_circles_are_refused_by_name(self):
        one = {**self.GROUP, "name": "Moons", "group": "g2"}
        two = {**self.GROUP, "id": "g2", "name": "Rings", "group": "g1"}
        with self.assertRaisesRegex(SceneError, "“Moons” needs “Rings” needs “Moons”"):
            files.from_data(scene_data(layers=[one, two]))
        inner = shape(shape=BAR, group="g1", name="Star", matte={"layer": "g1"})
        with self.assertRaisesRegex(SceneError, "need each other to be drawn"):
            files.from_data(scene_data(layers=[self.GROUP, inner]))
        with self.assertRaisesRegex(SceneError, '"s9" is no group'):
            files.from_data(scene_data(layers=[shape(shape=BAR, group="s9")]))
        with self.assertRaisesRegex(SceneError, 'no layer "s9"'):
            files.from_data(scene_data(layers=[shape(shape=BAR, matte={"layer": "s9"})]))
        with self.assertRaisesRegex(SceneError, "path data of an SVG path"):
            files.from_data(scene_data(layers=[shape(shape={"kind": "path", "path": "M0"})]))
