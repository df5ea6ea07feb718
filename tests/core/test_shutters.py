"""Pictures in which a shutter is open: few samples look like many, mixed in linear light."""

import random
from unittest import TestCase, mock

import cv2
import numpy as np
import skia
from hypothesis import given, settings
from hypothesis import strategies as st

from balletto.picture.canvases.canvas import DrawItem, DrawnLine
from balletto.picture.canvases.skia_canvas import SkiaCanvas
from balletto.picture.composing.compositing import CompositeNode, draw_node
from balletto.picture.frame import Picture, draw_frame
from balletto.picture.pixels.bitmaps import Bitmap, Photo
from balletto.picture.shutter import motion_blur, shutter_samples, shutter_strips
from balletto.picture.shutter.linear_sum import LinearSum
from balletto.raster.pixel_buffer import PixelBuffer, Scale
from balletto.scene import files
from balletto.scene.forms.primitives import rectangle
from balletto.scene.values.colors import coded, light_in

from .drawing import NEAR_DB, SIZE, drawn, placed, psnr, star
from .test_typing import data_of


def in_half_floats(samples: list[list[DrawItem]]) -> np.ndarray:
    """The mean of samples that are drawn in linear light."""
    height, width = SIZE[::-1]
    spaces = (skia.ColorSpace.MakeSRGBLinear(), skia.ColorSpace.MakeSRGB())
    types = (skia.kRGBA_F16_ColorType, skia.kBGRA_8888_ColorType)
    linear, plain = (
        skia.ImageInfo.Make(width, height, kind, skia.kPremul_AlphaType, space)
        for kind, space in zip(types, spaces, strict=True)
    )
    surface = skia.Surface.MakeRaster(linear)
    canvas = surface.getCanvas()
    share = skia.Paint(Alphaf=1 / len(samples), BlendMode=skia.BlendMode.kPlus)
    drawer = SkiaCanvas(*SIZE)
    drawing = drawer._draw_in_turn(PixelBuffer.empty(0, 0, *SIZE), samples, canvas)
    for _ in samples:
        canvas.resetMatrix()
        canvas.saveLayer(None, share)
        next(drawing)
        canvas.restore()
    made = np.zeros((height, width, 4), dtype=np.uint8)
    surface.makeImageSnapshot().readPixels(plain, made, made.strides[0], 0, 0)
    return made


class ShutterTest(TestCase):
    @given(st.integers(0, 10**6))
    @settings(max_examples=25, deadline=None)
    def test_inks_mix_what_half_floats_do(self, seed):
        """Any colours, shadows among them, in any order, moving and turning."""
        chance = random.Random(seed)
        colors = [f"#{chance.randrange(1 << 24):06X}" for _ in range(chance.randint(2, 5))]
        items = [
            (
                star(chance.uniform(20, 160), chance.uniform(20, 160)),
                chance.uniform(60, 400),
                chance.uniform(40, 230),
                chance.choice(colors),
                chance.choice([1.0, 1.0, chance.random()]),
                chance.uniform(-12, 12),
            )
            for _ in range(chance.randint(2, 6))
        ]
        samples = [
            [
                DrawItem(outline, placed(x + way * n / 8, y, way * n / 8), color, opacity)
                for outline, x, y, color, opacity, way in items
            ]
            for n in range(8)
        ]
        canvas = SkiaCanvas(*SIZE)
        canvas.open(None, 0)
        quick = motion_blur.mean_in_linear_light(
            canvas._buffers[-1], samples, canvas._draw_in_turn, canvas.scale
        )
        self.assertGreater(psnr(quick.pixels, in_half_floats(samples)), NEAR_DB)

    @given(st.integers(0, 10**6))
    @settings(max_examples=25, deadline=None)
    def test_a_sum_is_the_mean_in_linear_light(self, seed):
        """Of few pictures or many, opaque or not."""
        chance = np.random.default_rng(seed)
        count = int(chance.integers(2, 40))
        pictures = chance.integers(0, 256, (count, 12, 20, 4), dtype=np.uint8)
        pictures[..., 3] = np.maximum(pictures[..., 3], chance.choice([0, 200, 255]))
        pictures[:, :4] = pictures[:1, :4]
        pictures[..., :3] = np.minimum(pictures[..., :3], pictures[..., 3:])
        total = LinearSum(pictures[0].shape, count)
        for picture in pictures:
            total.add(picture)
        opacity = pictures[..., 3:] / 255
        light = light_in(pictures[..., :3] / np.maximum(pictures[..., 3:], 1)) * opacity
        seen = opacity.mean(axis=0)
        color = coded(light.mean(axis=0) / np.maximum(seen, 1e-9)) * seen
        wanted = np.concatenate([color, seen], axis=-1) * 255
        self.assertLess(np.abs(total.mean() - wanted).max(), 1.01)
        np.testing.assert_array_less(-1, total.mean()[..., 3:] - total.mean()[..., :3].astype(int))

    def test_a_photo_moves_as_in_half_floats(self):
        pixels = np.random.default_rng(1).integers(0, 256, (9, 12, 4), dtype=np.uint8)
        pixels = cv2.resize(pixels, (300, 200), interpolation=cv2.INTER_CUBIC)
        pixels[..., :3] = np.minimum(pixels[..., :3], pixels[..., 3:])
        form = SkiaCanvas.outline(rectangle(300, 200, 0))
        photo = Photo(Bitmap("any", pixels), (-150, -100, 150, 100))
        items = [DrawItem(form, placed(200 + 5 * n, 130, n), photo, 0.9) for n in range(12)]
        canvas = SkiaCanvas(*SIZE)
        draw_node(canvas, CompositeNode(tuple([item] for item in items)))
        self.assertGreater(psnr(canvas.pixels, in_half_floats([[item] for item in items])), 50)

    def test_outlines_that_change_need_as_many_as_their_points_move(self):
        """From a circle to an ellipse; what is of another build needs all."""
        for way, few in ((0.2, 1), (3.9, 6), (200, 12)):
            with self.subTest(way):
                items = [
                    DrawItem(star(90 + way / 12 * n * 2, 90), placed(240, 130), "#FFFFFF", 1.0)
                    for n in range(12)
                ]
                samples = [[item] for item in items]
                matrices = np.array([[item.matrix] for item in items])
                scale = Scale(1, 1, *SIZE)
                needed = shutter_samples.needed_samples(samples, matrices, scale)
                self.assertEqual(needed.tolist(), [few])
                with mock.patch.object(shutter_samples, "_NEXT", 1e-9):
                    all_of_them = drawn(*items, samples=12)
                self.assertGreater(psnr(drawn(*items, samples=12), all_of_them), NEAR_DB)
        items[7] = items[7]._replace(outline=SkiaCanvas.outline(rectangle(90, 60, 0)))
        samples = [[item] for item in items]
        self.assertEqual(shutter_samples.needed_samples(samples, matrices, scale).tolist(), [12])

    def test_a_few_samples_stand_for_many_that_are_near(self):
        """Two pixels in sixty-four samples; and a way that is long needs all of them."""
        outline = star()
        for way in (0.3, 2.0, 9.0, 60.0):
            with self.subTest(way):
                items = [
                    DrawItem(outline, placed(200 + way * n / 64, 130), "#FFFFFF", 1.0)
                    for n in range(64)
                ]
                quick = drawn(*items, samples=64)
                with mock.patch.object(shutter_samples, "_NEXT", 1e-9):
                    all_of_them = drawn(*items, samples=64)
                self.assertGreater(psnr(quick, all_of_them), NEAR_DB)

    def test_what_appears_at_once_needs_all_samples(self):
        """Hardly moved, but not there for thirteen of sixteen; or of another colour."""
        outline = star()
        seen = [0.0] * 13 + [1.0] * 3
        colors = ["#FF2040"] * 13 + ["#20FF40"] * 3
        for opacities, fills in ((seen, ["#FFFFFF"] * 16), ([1.0] * 16, colors)):
            items = [
                DrawItem(outline, placed(200 + 0.02 * n, 130), fills[n], opacities[n])
                for n in range(16)
            ]
            with mock.patch.object(shutter_samples, "_NEXT", 1e-9):
                all_of_them = drawn(*items, samples=16)
            self.assertGreater(psnr(drawn(*items, samples=16), all_of_them), NEAR_DB)


class StripsTest(TestCase):
    """Where little moves while a shutter is open, few of its samples are drawn."""

    def samples(self, chance: random.Random, count: int) -> list[list[DrawItem]]:
        """Stars that move by any way, some not at all, some there for a part of the time; each
        after something soft."""
        items = []
        for _ in range(chance.randint(1, 9)):
            way = chance.choice([0.0, 0.0, 0.4, 3.0, 30.0, 120.0])
            place = (chance.uniform(-40, 520), chance.uniform(20, 250))
            turn, first = chance.uniform(-9, 9) * way / 30, chance.choice([0, 0, 0, count // 2])
            color = f"#{chance.randrange(1 << 24):06X}"
            items.append((star(chance.uniform(20, 90), 40), *place, way, turn, first, color))
        return [
            [
                each
                for outline, x, y, way, turn, first, color in items
                if number >= first
                for share in [number / count]
                for there in [placed(x + way * share, y + way * share / 4, turn * share)]
                for each in (
                    DrawItem(outline, there, "#000000", 0.5, None, 7.0),
                    DrawItem(outline, there, color, 1.0),
                )
            ]
            for number in range(count)
        ]

    @given(st.integers(0, 10**6))
    @settings(max_examples=25, deadline=None)
    def test_they_look_like_all_samples_everywhere(self, seed):
        samples = self.samples(random.Random(seed), 12)
        canvas = SkiaCanvas(*SIZE)
        canvas.open(None, 0)
        quick = motion_blur.mean_in_linear_light(
            canvas._buffers[-1], samples, canvas._draw_in_turn, canvas.scale
        )
        slow = motion_blur._linear_mean(
            PixelBuffer.empty(0, 0, *SIZE), samples, canvas._draw_in_turn
        )
        self.assertGreater(psnr(quick.pixels, slow.pixels), 40)

    @given(st.integers(0, 10**6))
    @settings(max_examples=60, deadline=None)
    def test_they_cover_all_that_moves_and_lie_apart(self, seed):
        chance = np.random.default_rng(seed)
        low = chance.integers(-60, 260, (3, chance.integers(1, 12), 2))
        boxes = np.concatenate([low, low + chance.integers(1, 90, low.shape)], axis=-1)
        needed = chance.integers(1, 13, low.shape[1])
        buffer = PixelBuffer.empty(0, -20, 200, 180)
        most = np.zeros((200, 200), dtype=int)
        for (left, top, right, bottom), count in shutter_strips.strips_of(boxes, needed, buffer):
            part = most[top + 20 : bottom + 20, left:right]
            self.assertTrue((part == 0).all() and part.size == (right - left) * (bottom - top))
            part[:] = count
        for number in np.flatnonzero(needed > 1):
            for left, top, right, bottom in boxes[:, number].clip((0, -20, 0, -20), (200, 180) * 2):
                seen = most[top + 20 : bottom + 20, left:right]
                self.assertGreaterEqual(seen.min(initial=99), needed[number])

    def test_letters_that_rest_need_few_samples_beside_one_that_flies(self):
        rests = DrawItem(star(), placed(90, 200), "#FFFFFF", 1.0)
        samples = [[rests._replace(matrix=placed(60 + 30 * n, 60)), rests] for n in range(12)]
        matrices = np.array([[item.matrix for item in items] for items in samples])
        needed = shutter_samples.needed_samples(samples, matrices, Scale(1, 1, *SIZE))
        self.assertEqual(needed.tolist(), [12, 1])

    def test_lines_that_go_on_need_as_many_as_their_ends_move(self):
        """On a path of 300 px; what has other dashes needs all."""
        outline = SkiaCanvas.outline((("move", (60, 60)), ("line", (360, 60))))
        for way, few in ((0.2, 1), (3.9, 6), (200, 12)):
            with self.subTest(way):
                lines = [
                    DrawnLine(9, "#FFFFFF", seen=((0.1, 0.2 + way / 300 * n / 12),), whole=True)
                    for n in range(12)
                ]
                items = [DrawItem(outline, placed(0, 0), None, 1.0, line) for line in lines]
                self.assertEqual(self.needed(items), few)
                with mock.patch.object(shutter_samples, "_NEXT", 1e-9):
                    all_of_them = drawn(*items, samples=12)
                self.assertGreater(psnr(drawn(*items, samples=12), all_of_them), NEAR_DB)
        dashed = [line._replace(dashes=((n + 1.0, 2.0), 0.0)) for n, line in enumerate(lines)]
        items = [DrawItem(outline, placed(0, 0), None, 1.0, line) for line in dashed]
        self.assertEqual(self.needed(items), 12)

    def needed(self, items: list[DrawItem]) -> int:
        """Of the samples of one item."""
        samples = [[item] for item in items]
        matrices = np.array([[item.matrix] for item in items])
        return int(shutter_samples.needed_samples(samples, matrices, Scale(1, 1, *SIZE))[0])

    def test_a_photo_that_hardly_turns_is_drawn_once_as_it_is_in_the_middle(self):
        pixels = np.random.default_rng(2).integers(0, 256, (200, 300, 4), dtype=np.uint8)
        pixels[..., 3] = 255
        photo = Photo(Bitmap("chance", pixels), (-150, -100, 150, 100))
        form = SkiaCanvas.outline(rectangle(300, 200, 0))
        items = [DrawItem(form, placed(240, 135, n / 400), photo, 1.0) for n in range(12)]
        # Laying it on the picture from a buffer of its own rounds once more.
        np.testing.assert_allclose(
            drawn(*items, samples=12).astype(int), drawn(items[6]).astype(int), atol=1
        )

    def test_what_is_soft_needs_fewer(self):
        item = DrawItem(star(), placed(0, 0), "#000000", 0.5)
        samples = [
            [each._replace(matrix=placed(60 + 2 * n, 60)) for each in (item, item._replace(blur=9))]
            for n in range(12)
        ]
        matrices = np.array([[item.matrix for item in items] for items in samples])
        needed = shutter_samples.needed_samples(samples, matrices, Scale(1, 1, *SIZE))
        self.assertEqual(needed.tolist(), [12, 6])


class JumpTest(TestCase):
    def test_a_caret_is_seen_once_and_whole_while_it_jumps(self):
        """Whenever the next letter comes while a shutter is open."""
        for start in (3, 3.2, 3.5, 3.8):
            data = data_of(text="ABCD", stagger={"gap": 2}, start=start)
            plain = draw_frame(Picture(files.from_data(data)), 6)
            data["layers"][0]["motion_blur"] = {"angle": 360}
            blurred = draw_frame(Picture(files.from_data(data)), 6)
            red = [(p[..., 2].astype(int) - p[..., 1]).max(axis=0) for p in (plain, blurred)]
            with self.subTest(start):
                self.assertEqual(np.flatnonzero(red[1] > 20).size, np.flatnonzero(red[0] > 20).size)
                self.assertGreater(red[1].max(), 200)
