"""What is drawn quickly looks like what is drawn slowly, as right as it can be."""

import gc
import random
from unittest import TestCase, mock

import cv2
import numpy as np
import skia
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.ndimage import gaussian_filter

from balletto.picture import clipped, motion_blur, shutter_samples, shutter_strips
from balletto.picture.bitmap_store import BitmapStore
from balletto.picture.bitmaps import Bitmap, Photo
from balletto.picture.canvas import DrawItem, Gradient, Line
from balletto.picture.compositing import CompositeNode, draw_node
from balletto.picture.frame import Picture
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.picture.linear_sum import LinearSum
from balletto.picture.skia_canvas import BLEND_MODES, SkiaCanvas
from balletto.picture.sprite_cache import SpriteCache
from balletto.raster.blending import blend_few
from balletto.raster.blurring import blurred
from balletto.raster.pixel_buffer import PixelBuffer, Scale
from balletto.raster.warping import warp
from balletto.scene.colors import coded, light_in
from balletto.scene.primitives import ellipse, rectangle
from balletto.scene.tracks import Track, value_at

from .test_pictures import pictured

SIZE = (480, 270)
NEAR_DB = 45
KEYS = ({"at": 0, "value": 1}, {"at": 30, "value": 2, "ease": "soft-both"}, {"at": 40, "value": 5})
SKIA_CANVAS = "balletto.picture.skia_canvas"


def psnr(one: np.ndarray, other: np.ndarray) -> float:
    """Peak signal to noise, in dB."""
    error = np.mean((one.astype(float) - other) ** 2)
    return float("inf") if error == 0 else float(10 * np.log10(255**2 / error))


def placed(across: float, down: float, turn: float = 0.0, size: float = 1.0) -> list[float]:
    """A matrix that turns, scales and moves."""
    a, b = size * np.cos(np.radians(turn)), size * np.sin(np.radians(turn))
    return [float(a), float(-b), across, float(b), float(a), down, 0.0, 0.0, 1.0]


def drawn(*items: DrawItem, samples: int = 1, **more: object) -> np.ndarray:
    """Items on a blue picture; several samples of one item each are averaged."""
    canvas = SkiaCanvas(*SIZE)
    canvas.clear("#204080")
    each = tuple([item] for item in items) if samples > 1 else (list(items),)
    draw_node(canvas, CompositeNode(each, **more))
    return canvas.pixels.copy()


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


def star(width: float = 90, height: float = 60) -> object:
    return SkiaCanvas.outline(ellipse(width, height))


class BlurTest(TestCase):
    def test_it_is_a_gaussian(self):
        """Whatever the deviation, an edge is as soft as the formula says, and light is kept."""
        pixels = np.zeros((200, 260, 4), dtype=np.uint8)
        pixels[60:140, 80:190] = 255
        pixels[100:104] = (40, 90, 200, 255)
        for deviation in (0.4, 1, 2, 3, 4.5, 6, 9, 14, 22, 37, 60):
            with self.subTest(deviation):
                scale = Scale(1, 1, 260, 200, 3 * deviation)
                soft = blurred(PixelBuffer(pixels), deviation, deviation, scale)
                far = int(3 * deviation) + 40
                wide = np.pad(pixels.astype(float), ((far, far), (far, far), (0, 0)))
                wanted = gaussian_filter(wide, (deviation, deviation, 0))
                rows = slice(soft.top + far, soft.bottom + far)
                columns = slice(soft.left + far, soft.right + far)
                self.assertGreater(psnr(soft.pixels, wanted[rows, columns]), 50)
                self.assertLess(np.abs(soft.pixels - wanted[rows, columns]).max(), 8)

    def test_what_is_seen_of_a_soft_buffer_is_the_same_piece_of_all_of_it(self):
        pixels = np.random.default_rng(3).integers(0, 256, (90, 120, 4), dtype=np.uint8)
        soft = blurred(PixelBuffer(pixels), 9, 9, Scale(1, 1, 120, 90, 27))
        part = soft.within((13, 21, 77, 66))
        np.testing.assert_array_equal(
            part.pixels, soft.pixels[21 - soft.top : 66 - soft.top, 13 - soft.left : 77 - soft.left]
        )


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
                    Line(9, "#FFFFFF", seen=((0.1, 0.2 + way / 300 * n / 12),), whole=True)
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


class SpriteTest(TestCase):
    def without_sprites(self, *items: DrawItem) -> np.ndarray:
        with mock.patch.object(SpriteCache, "placed", lambda self, items, *_: [None] * len(items)):
            return drawn(*items)

    def test_what_is_soft_looks_as_if_it_were_softened_where_it_stands(self):
        for blur in (1.0, 3.0, 8.0, 20.0):
            for turn in (0, 17):
                with self.subTest(blur=blur, turn=turn):
                    item = DrawItem(star(), placed(211.37, 120.81, turn, 1.3), "#FFD060", 0.7)
                    soft = item._replace(blur=blur)
                    self.assertGreater(psnr(drawn(soft), self.without_sprites(soft)), NEAR_DB)

    def test_copies_stand_where_they_should(self):
        outline = star(20, 30)
        items = [
            DrawItem(outline, placed(40 + 9.37 * n, 100 + 0.61 * n, 3.0 * n), "#FFFFFF", 0.8)
            for n in range(30)
        ]
        copies = [item.as_copy() for item in items]
        self.assertGreater(psnr(drawn(*copies), drawn(*items)), NEAR_DB - 5)

    def test_large_soft_forms_outlive_their_drawing(self):
        """A picture that is no copy is drawn while its pixels are there."""
        canvas = SkiaCanvas(1400, 900)
        form = SkiaCanvas.outline(rectangle(1300, 800, 40))
        for turn in range(8):
            canvas.clear("#000000")
            item = DrawItem(form, placed(700, 450, turn), "#80C0FF", 0.9, None, 9.0)
            canvas.draw([item, item._replace(fill="#FF8040", blur=21.0)])
            gc.collect()
            self.assertEqual(canvas.pixels[450, 700].tolist()[3], 255)

    def test_of_a_huge_soft_form_only_what_is_seen_is_made(self):
        """However large it is drawn, and however softly: no more pixels than the picture has."""
        canvas = SkiaCanvas(*SIZE, (2.0, 2.0))
        form = SkiaCanvas.outline(rectangle(9000, 9000, 0))
        item = DrawItem(form, placed(100, 60, size=9.0), "#FFFFFF", 1.0, None, 400.0)
        [(sprite, *_)] = canvas._sprites.placed([item], canvas._buffers[0], canvas.scale)
        self.assertLessEqual(sprite.pixels.nbytes, SIZE[0] * SIZE[1] * 4)
        canvas.draw([item])
        self.assertGreater(canvas.pixels[130, 200, 3], 250)

    def test_large_sharp_copies_are_drawn_where_they_stand(self):
        canvas = SkiaCanvas(*SIZE)
        item = DrawItem(star(900, 900), placed(200, 130), "#FFFFFF", 1.0).as_copy()
        self.assertEqual(canvas._sprites.placed([item], canvas._buffers[0], canvas.scale), [None])

    def test_they_keep_no_photos(self):
        canvas = SkiaCanvas(*SIZE)
        photo = Photo(Bitmap("grey", np.full((60, 90, 4), 128, np.uint8)), (-45, -30, 45, 30))
        form = SkiaCanvas.outline(rectangle(90, 60, 0))
        canvas.draw([DrawItem(form, placed(200, 130), photo, 1.0, None, 5.0)])
        kept = canvas._sprites._kept
        self.assertEqual(len(kept), 1)
        self.assertFalse([part for key in kept for part in key if isinstance(part, Photo)])

    def test_they_are_counted_in_bytes(self):
        canvas = SkiaCanvas(*SIZE)
        with mock.patch("balletto.picture.sprite_cache._MOST_BYTES", 200_000):
            for n in range(60):
                canvas.draw([DrawItem(star(60 + n, 60), placed(200, 100), "#FFFFFF", 1, None, 5.0)])
            kept = canvas._sprites
            self.assertLessEqual(kept._bytes, 200_000)
            self.assertEqual(kept._bytes, sum(s.pixels.nbytes for s in kept._kept.values()))


class PixelsTest(TestCase):
    """What OpenCV works out, against Skia, which draws what is small."""

    def slowly(self, *items: DrawItem) -> np.ndarray:
        with (
            mock.patch("balletto.picture.photos.SMALL", 10**9),
            mock.patch("balletto.picture.gradients.SMALL", 10**9),
        ):
            return drawn(*items)

    def photo(self) -> Photo:
        y, x = np.mgrid[0:200, 0:300]
        waves = [127 + 120 * np.sin(x / 9 + k) * np.cos(y / 14 - k) for k in range(3)]
        pixels = np.stack([*waves, np.full(x.shape, 255)], axis=-1).astype(np.uint8)
        return Photo(Bitmap(f"waves{id(self)}", pixels), (-150, -100, 150, 100))

    def test_photos_at_any_size_and_turn(self):
        form = SkiaCanvas.outline(rectangle(300, 200, 0))
        for size in (0.55, 0.8, 1.0, 1.7):
            for turn in (0, 12, 90, -140):
                with self.subTest(size=size, turn=turn):
                    item = DrawItem(form, placed(241.3, 133.8, turn, size), self.photo(), 0.9)
                    self.assertGreater(drawn(item).std(), 20)
                    self.assertGreater(psnr(drawn(item), self.slowly(item)), 38)

    def test_gradients(self):
        form = SkiaCanvas.outline(ellipse(420, 250))
        colors = ("#102040", "#F0B040", "#801040")
        for gradient in (
            Gradient(False, (-200.0, -40.0), (200.0, 60.0), colors),
            Gradient(True, (0.0, 0.0), (210.0, 0.0), colors),
            Gradient(True, (20.0, 10.0), (60.0, 10.0), colors),
        ):
            for turn in (0, 33):
                with self.subTest(gradient=gradient, turn=turn):
                    item = DrawItem(form, placed(240, 135, turn), gradient, 1.0)
                    self.assertGreater(psnr(drawn(item), self.slowly(item)), NEAR_DB)

    def test_one_piece_is_blended_as_in_a_layer(self):
        form = SkiaCanvas.outline(ellipse(300, 180))
        photo = DrawItem(form, placed(240, 135, 9), self.photo(), 0.8)
        for blend in ("multiply", "screen", "difference", "luminosity"):
            for item in (photo, DrawItem(form, placed(240, 135), "#E08040", 0.7)):
                alone = drawn(item, blend=blend)
                with mock.patch(
                    "balletto.picture.skia_canvas._is_of_one_piece", return_value=False
                ):
                    layered = drawn(item, blend=blend)
                self.assertGreater(psnr(alone, layered), NEAR_DB)

    def test_stars_are_blended_as_all_pixels_would_be(self):
        """In each mode, as opaque as it may be, wherever one lies on the other."""
        chance = np.random.default_rng(4)
        stars = np.zeros((220, 260, 4), dtype=np.uint8)
        for x, y in chance.integers(0, 200, (300, 2)):
            alpha = int(chance.integers(1, 256))
            stars[y, x] = [*chance.integers(0, alpha + 1, 3), alpha]
        behind = chance.integers(0, 256, (200, 300, 4), dtype=np.uint8)
        behind[..., 3] = 255
        for mode in BLEND_MODES.values():
            for corner in ((0, 0), (-30, -50), (120, 70), (400, 0)):
                paint = skia.Paint(BlendMode=mode, Alphaf=0.7)
                quick, slow = (PixelBuffer(behind.copy(), 10, 20) for _ in range(2))
                above = PixelBuffer(stars, 10 + corner[0], 20 + corner[1])
                is_done = blend_few(above, quick, paint)
                above.put_on(slow.canvas, *corner, paint)
                self.assertEqual(is_done, corner[0] < 400)
                if is_done:
                    np.testing.assert_array_equal(quick.pixels, slow.pixels)
        self.assertFalse(blend_few(PixelBuffer(behind), PixelBuffer(behind.copy()), paint))

    def test_what_is_turned_is_the_same_column_by_column(self):
        pixels = np.random.default_rng(5).integers(0, 256, (200, 300, 4), dtype=np.uint8)
        pixels = cv2.GaussianBlur(pixels, (0, 0), 3)
        for turn in (-30, -2, 0, 3, 90):
            way = np.array(placed(90, 30, turn, 1.4)).reshape(3, 3)[:2]
            made = np.empty((270, 480, 4), dtype=np.uint8)
            warp(pixels, way, made)
            whole = cv2.warpAffine(pixels, way, (480, 270), flags=cv2.INTER_LINEAR)
            self.assertGreater(psnr(made, whole), 50)

    def test_a_photo_is_kept_as_it_is_turned_once_it_stays(self):
        form, photo = SkiaCanvas.outline(rectangle(300, 200, 0)), self.photo()
        store = BitmapStore()
        with mock.patch("balletto.picture.photos.BITMAPS", store):
            for turn in range(5):
                drawn(DrawItem(form, placed(240, 135, turn), photo, 1.0))
            self.assertEqual(store.bytes, 0)
            first = drawn(DrawItem(form, placed(240, 135, 4), photo, 1.0))
            kept = store.bytes
            self.assertGreater(kept, 0)
            again = drawn(DrawItem(form, placed(240, 135, 4), photo, 1.0))
        self.assertEqual(store.bytes, kept)
        np.testing.assert_array_equal(first, again)

    def test_a_box_that_is_not_seen_is_not_drawn(self):
        canvas = skia.Surface.MakeRaster(skia.ImageInfo.MakeN32Premul(40, 40)).getCanvas()
        self.assertIsNone(clipped.in_sight(canvas, skia.Rect.MakeLTRB(50, 50, 90, 90)))


class TrackTest(TestCase):
    def test_tracks_that_say_the_same_are_equal_whatever_was_asked_of_them(self):
        one, other = (Track[float](keys=KEYS) for _ in range(2))
        value_at(one, np.array(3.0))
        self.assertEqual(one, other)
        value_at(other, np.array(40.0))
        self.assertEqual(one, other)

    def test_a_frame_alone_is_what_it_is_among_others(self):
        for frame in (-20.0, 0.0, 7.0, 16.0, 29.0, 300.0):
            alone = value_at(Track[float](keys=KEYS, after="mirror"), np.array(frame))
            among = value_at(
                Track[float](keys=KEYS, after="mirror"), np.array([frame, frame + 0.5])
            )
            self.assertEqual(float(alone), float(among[0]))


class ChangesTest(TestCase):
    def test_a_masked_layer_that_stands_still_is_not_drawn_again(self):
        mask = {"kind": "ellipse", "size": [20, 20], "feather": 3}
        photo = {
            "id": "s1",
            "kind": "shape",
            "span": [0, 30],
            "fill": "#FFFFFF",
            "stroke": None,
            "shape": {"kind": "rectangle", "size": [60, 40]},
            "transform": {"position": [80, 45, 0]},
            "masks": [mask],
        }
        renderer = IncrementalRenderer(Picture(pictured([photo])))
        renderer.draw(3)
        self.assertEqual(renderer.draw(4), (0, 0, 0, 0))

    def test_what_stands_still_is_not_drawn_again(self):
        """Of four shapes one moves: the box around its places is all that is told."""
        keys = [{"at": 0, "value": [40, 40, 0]}, {"at": 20, "value": [80, 40, 0]}]
        shapes = [
            {
                "id": f"s{n}",
                "kind": "shape",
                "span": [0, 30],
                "fill": "#FFFFFF",
                "stroke": None,
                "shape": {"kind": "ellipse", "size": [20, 20]},
                "transform": {"position": {"keys": keys} if n == 0 else [40.0 * n, 90, 0]},
            }
            for n in range(4)
        ]
        renderer = IncrementalRenderer(Picture(pictured(shapes)))
        renderer.draw(3)
        left, top, right, bottom = renderer.draw(4)
        self.assertLess((right - left) * (bottom - top), 40 * 30)
        renderer.draw(20)
        self.assertEqual(renderer.draw(25), (0, 0, 0, 0))
