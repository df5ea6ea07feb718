"""Windows: letters are seen within the boxes of lines, words, themselves or the title alone."""

from unittest import TestCase

import numpy as np

from balletto.lettering.layout import lay_out
from balletto.picture.canvases.canvas import DrawItem, RecordingCanvas
from balletto.picture.canvases.svg_canvas import NotInSvg, SvgCanvas
from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.edits import apply
from balletto.scene.errors import SceneError

from .scenes import scene_data

SIZE = (240, 160)


def data_of(window, pose=None, text="HE\nHE", **changes):
    """A scene of two lines of letters, of which a move takes all as far as the pose says."""
    data = scene_data(text, size=list(SIZE), background={"kind": "none"})
    title = data["layers"][0]
    title["style"] |= {"size": 50, "leading": 1.3}
    title["transform"] = {"position": [120, 80, 0]}
    title["moves"] = [{"id": "m1", "unit": "line", "pose": pose or {}, "amount": 1}]
    title["window"] = window
    return {**data, "layers": [{**title, **changes}]}


def opacity(data, frame=0):
    """The opacity of each pixel."""
    return draw_frame(Picture(files.from_data(data)), frame)[..., 3].astype(float)


def boxes_of(data, kind):
    """The rest boxes of units in the picture, for a layer that is neither turned nor scaled."""
    scene = files.from_data(data)
    x, y, _ = scene.layers[0].transform.position
    return lay_out(scene, scene.layers[0]).boxes[kind] + np.array([x, y, x, y])


def inside(boxes, grow=(0, 0, 0, 0)):
    """Which pixels lie within any of the boxes, and a pixel of smoothing."""
    rows, columns = np.mgrid[: SIZE[1], : SIZE[0]] + 0.5
    seen = np.zeros(rows.shape, dtype=bool)
    for box in boxes:
        left, top, right, bottom = box + np.array(grow) * [-1, -1, 1, 1] + [-1, -1, 1, 1]
        seen |= (columns > left) & (columns < right) & (rows > top) & (rows < bottom)
    return seen


class WindowTest(TestCase):
    def test_a_letter_outside_its_window_has_no_ink(self):
        for of, kind in (
            ("line", "line"),
            ("word", "word"),
            ("unit", "character"),
            ("title", "title"),
        ):
            for pose in ({"y": 21}, {"y": -33}, {"x": 17, "y": 9}, {"rotation": 30}):
                with self.subTest(of=of, pose=pose):
                    data = data_of({"of": of}, pose)
                    seen, whole = opacity(data), opacity(data_of(None, pose))
                    within = inside(boxes_of(data, kind))
                    self.assertEqual(seen[~within].sum(), 0)
                    deep = ~inside(boxes_of(data, kind), (-3, -3, -3, -3))
                    kept = np.where(deep, 0, seen)
                    if of in ("line", "title"):
                        wanted = np.where(deep, 0, self.of_own(data, whole))
                        self.assert_alike(kept, wanted)
                    self.assertGreater(whole.sum(), seen.sum())

    def assert_alike(self, one, other):
        """Within a window edges are smoothed another way: single pixels of them differ a little."""
        difference = np.abs(one - other)
        self.assertLess(difference.max(), 48)
        self.assertLess(difference.mean(), 0.1)

    def of_own(self, data, whole):
        """What is drawn without windows, of lines that do not reach into one another."""
        return whole if data["layers"][0]["window"]["of"] == "title" else self.lines_alone(data)

    def lines_alone(self, data):
        """Each line drawn alone, as far as it lies within its own box."""
        total = np.zeros(SIZE[::-1])
        for number, box in enumerate(boxes_of(data, "line")):
            alone = {**data["layers"][0], "window": None}
            other = 1 - number
            alone["runs"] = [{"from": other * 3, "to": other * 3 + 2, "style": {"fill": "none"}}]
            drawn = opacity({**data, "layers": [alone]})
            total += np.where(inside([box]), drawn, 0)
        return total

    def test_at_rest_all_is_seen_where_the_box_holds_the_ink(self):
        data = data_of({"of": "line", "grow": 8})
        self.assert_alike(opacity(data), opacity(data_of(None)))

    def test_each_side_grows_by_itself(self):
        pose = {"y": 60}
        data = data_of({"of": "title", "grow": [0, 0, 0, 40]}, pose)
        seen = opacity(data)
        self.assertEqual(seen[~inside(boxes_of(data, "title"), (0, 0, 0, 40))].sum(), 0)
        self.assertGreater(seen.sum(), opacity(data_of({"of": "title"}, pose)).sum())

    def test_soft_edges_fade_straight_inward(self):
        """A tall bar through the whole window shows its ramp."""
        data = data_of({"of": "title", "soft": [0, 20, 0, 40]}, text="I", pose={"scale_y": 20})
        seen = opacity(data)
        column = seen[:, SIZE[0] // 2]
        _, top, _, bottom = boxes_of(data, "title")[0]
        for row in range(SIZE[1]):
            middle = row + 0.5
            share = min((middle - top) / 20, 1) * min((bottom - middle) / 40, 1)
            if top + 1 < middle < bottom - 1:
                self.assertAlmostEqual(column[row] / 255, max(share, 0), delta=0.02)

    def test_it_goes_with_its_layer_and_no_move(self):
        """As much is cut off wherever the layer stands, turned and in perspective."""
        plain = opacity(data_of({"of": "line"}, {"y": 25})).sum()
        whole = opacity(data_of(None, {"y": 25})).sum()
        turned = {"position": [120, 80, 0], "rotation": [0, 0, 90], "scale": [0.8, 0.8]}
        seen = opacity(data_of({"of": "line"}, {"y": 25}, transform=turned)).sum()
        of_all = opacity(data_of(None, {"y": 25}, transform=turned)).sum()
        self.assertAlmostEqual(seen / of_all, plain / whole, delta=0.02)
        tilted = {"position": [120, 80, 0], "rotation": [0, 50, 0]}
        seen = opacity(data_of({"of": "line"}, {"y": 25}, transform=tilted)).sum()
        of_all = opacity(data_of(None, {"y": 25}, transform=tilted)).sum()
        self.assertAlmostEqual(seen / of_all, plain / whole, delta=0.03)

    def test_shadows_trails_and_the_blur_of_motion_stay_within(self):
        keys = {"keys": [{"at": 0, "value": 1}, {"at": 10, "value": 0}]}
        for more in (
            {"effects": [{"kind": "shadow", "x": 30, "y": 30}]},
            {"effects": [{"kind": "trail", "copies": 4}]},
            {"motion_blur": {"angle": 360, "samples": 4}},
        ):
            with self.subTest(more):
                data = data_of({"of": "title", "soft": 3}, {"y": 60}, **more)
                data["layers"][0]["moves"][0]["amount"] = keys
                seen = opacity(data, 4)
                self.assertEqual(seen[~inside(boxes_of(data, "title"))].sum(), 0)
                self.assertGreater(seen.sum(), 0)

    def test_a_drawing_has_it_too(self):
        data = data_of({"of": "line", "soft": [0, 5, 0, 5]}, {"y": 20})
        canvas = SvgCanvas(SIZE, SIZE)
        Picture(files.from_data(data)).draw(canvas, 0)
        self.assertEqual(canvas.text().count("<clipPath"), 2)
        self.assertEqual(canvas.text().count("<mask"), 4)
        data["layers"][0]["transform"]["rotation"] = [0, 40, 0]
        with self.assertRaises(NotInSvg):
            Picture(files.from_data(data)).draw(SvgCanvas(SIZE, SIZE), 0)

    def test_letters_of_a_line_share_one(self):
        canvas = RecordingCanvas()
        Picture(files.from_data(data_of({"of": "line"}))).draw(canvas, 0)
        windows = [DrawItem(*call[1:]).window for call in canvas.calls if call[0] == "draw"]
        self.assertEqual([windows.count(window) for window in windows], [2, 2, 2, 2])

    def test_one_number_is_all_sides_and_another_count_is_refused(self):
        one, four = ({"of": "line", "grow": grow, "soft": 4} for grow in (7, [7, 7, 7, 7]))
        np.testing.assert_allclose(opacity(data_of(one)), opacity(data_of(four)))
        for wrong in ([1, 2], "wide", [1, 2, 3, -4]):
            with self.assertRaises(SceneError) as caught:
                files.from_data(data_of({"of": "line", "soft": wrong}))
            self.assertIn("layers[0].window.soft", str(caught.exception))

    def test_it_is_set_at_another_size_with_all_else(self):
        data = data_of({"of": "line", "grow": 10, "soft": [0, 5, 0, 5]})
        made = apply(data, {"name": "set-size", "size": [480, 320]}).document["layers"][0]
        self.assertEqual(made["window"], {"of": "line", "grow": 10, "soft": [0, 5, 0, 5]})
