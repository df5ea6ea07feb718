"""What is drawn quickly looks like what is drawn slowly, as right as it can be."""

import gc
from unittest import TestCase, mock

import cv2
import numpy as np
import skia
from scipy.ndimage import gaussian_filter

from balletto.picture.canvases import clipped
from balletto.picture.canvases.canvas import DrawItem, Gradient
from balletto.picture.canvases.skia_canvas import BLEND_MODES, SkiaCanvas
from balletto.picture.canvases.sprite_cache import SpriteCache
from balletto.picture.frame import Picture
from balletto.picture.incremental_renderer import IncrementalRenderer
from balletto.picture.pixels.bitmap_store import BitmapStore
from balletto.picture.pixels.bitmaps import Bitmap, Photo
from balletto.raster.blending import blend_few
from balletto.raster.blurring import blurred
from balletto.raster.pixel_buffer import PixelBuffer, Scale
from balletto.raster.warping import warp
from balletto.scene.forms.primitives import ellipse, rectangle
from balletto.scene.values.tracks import Track, value_at

from .drawing import NEAR_DB, SIZE, drawn, placed, psnr, star
from .test_pictures import pictured

KEYS = ({"at": 0, "value": 1}, {"at": 30, "value": 2, "ease": "soft-both"}, {"at": 40, "value": 5})
SKIA_CANVAS = "balletto.picture.canvases.skia_canvas"


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
        with mock.patch("balletto.picture.canvases.sprite_cache._MOST_BYTES", 200_000):
            for n in range(60):
                canvas.draw([DrawItem(star(60 + n, 60), placed(200, 100), "#FFFFFF", 1, None, 5.0)])
            kept = canvas._sprites
            self.assertLessEqual(kept._bytes, 200_000)
            self.assertEqual(kept._bytes, sum(s.pixels.nbytes for s in kept._kept.values()))


class PixelsTest(TestCase):
    """What OpenCV works out, against Skia, which draws what is small."""

    def slowly(self, *items: DrawItem) -> np.ndarray:
        with (
            mock.patch("balletto.picture.canvases.photos.SMALL", 10**9),
            mock.patch("balletto.picture.canvases.gradients.SMALL", 10**9),
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
                    "balletto.picture.canvases.skia_canvas._is_of_one_piece", return_value=False
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
        with mock.patch("balletto.picture.canvases.photos.BITMAPS", store):
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
