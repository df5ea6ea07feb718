"""SVG files as layers of shapes: their fills, strokes, gradients, groups and transforms."""

from unittest import TestCase

from balletto.picture.frame import Picture, draw_frame
from balletto.scene import files
from balletto.scene.forms.svg_layers import MOST_SHAPES, layers_of_svg

from .scenes import scene_data

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 100">'


def layers(body):
    return layers_of_svg(f"{HEAD}{body}</svg>".encode(), "Badge", (0, 90))


class SvgLayersTest(TestCase):
    def test_each_shape_keeps_its_fill_and_stroke(self):
        disc, ring, line, group = layers(
            '<circle cx="50" cy="50" r="20" fill="rebeccapurple"/>'
            '<g fill="none" stroke="#f00" stroke-width="4" stroke-linejoin="bevel">'
            '<rect id="Frame" x="90" y="30" width="40" height="40"/>'
            '<line x1="0" y1="100" x2="200" y2="100" stroke-dasharray="3 2 1"/></g>'
        )
        self.assertEqual((disc["fill"], disc["stroke"]), ("#663399", None))
        self.assertEqual((ring["fill"], ring["name"]), ("none", "Frame"))
        self.assertEqual(
            ring["stroke"], {"width": 4, "color": "#FF0000", "ends": "flat", "joins": "cut"}
        )
        self.assertEqual(line["stroke"]["dashes"], [3, 2, 1, 3, 2, 1])
        self.assertEqual((group["kind"], group["name"]), ("group", "Badge"))
        self.assertEqual({each["group"] for each in (disc, ring, line)}, {"g"})
        # About the middle of all of them: from 0 to 200 across, from 30 to 100 down.
        self.assertEqual(disc["transform"]["position"], [-50, -15, 0])
        self.assertEqual(ring["transform"]["position"], [10, -15, 0])

    def test_a_view_box_that_differs_from_the_size_is_brought_to_it(self):
        body = '<rect width="10" height="5" stroke="red" fill="none" stroke-width="1"/>'
        for size, scale in (
            ('width="400" height="400"', 2),
            ('width="100mm" height="100mm"', 100 / 25.4 * 96 / 200),
            ('width="100%" height="100%"', 1),
            ("", 1),
        ):
            head = HEAD.replace("viewBox", f"{size} viewBox")
            shape, _ = layers_of_svg(f"{head}{body}</svg>".encode(), "Badge", (0, 90))
            self.assertAlmostEqual(shape["stroke"]["width"], scale, delta=0.01)

    def test_what_is_used_stands_where_it_is_used(self):
        first, again, whole, _ = layers(
            '<defs><rect id="a" width="10" height="10"/></defs>'
            '<symbol id="b"><circle cx="0" cy="0" r="5"/></symbol>'
            '<use href="#a"/><use href="#a" x="50" fill="red"/>'
            '<use xmlns:x="http://www.w3.org/1999/xlink" x:href="#b" x="100" y="5"/>'
            '<use href="#gone"/>'
        )
        places = [each["transform"]["position"][0] for each in (first, again, whole)]
        self.assertEqual([place - places[0] for place in places], [0, 50, 95])
        self.assertEqual(again["fill"], "#FF0000")

    def test_what_is_used_over_and_over_has_a_bound(self):
        doubles = "".join(
            f'<g id="n{n}"><use href="#n{n - 1}"/><use href="#n{n - 1}"/></g>' for n in range(1, 30)
        )
        with self.assertRaisesRegex(ValueError, "draws more than 50,000 elements"):
            layers(f'<g id="n0"><text>o</text></g>{doubles}')
        with self.assertRaisesRegex(ValueError, "draws more than 50,000 elements"):
            layers('<g id="a"><use href="#a"/></g>')

    def test_styles_classes_and_current_colours(self):
        one, other, _ = layers(
            "<style>.a { fill: #0a0; stroke: black }</style>"
            '<rect class="a" width="9" height="9" style="stroke-width: 2"/>'
            '<g color="#123456"><rect width="9" height="9" fill="currentColor" opacity=".5"/></g>'
        )
        self.assertEqual((one["fill"], one["stroke"]["width"]), ("#00AA00", 2))
        self.assertEqual((other["fill"], other["transform"]["opacity"]), ("#123456", 0.5))

    def test_gradients(self):
        one, other, _ = layers(
            '<defs><linearGradient id="a" x1="0" y1="0" x2="0" y2="1"><stop stop-color="red"/>'
            '<stop offset="1" style="stop-color:#00f"/></linearGradient>'
            '<radialGradient id="b" href="#a"/></defs>'
            '<rect width="9" height="9" fill="url(#a)"/><rect width="9" height="9" fill="url(#b)"/>'
        )
        self.assertEqual(
            one["fill"], {"kind": "linear", "colors": ["#FF0000", "#0000FF"], "angle": 90}
        )
        self.assertEqual(other["fill"], {"kind": "round", "colors": ["#FF0000", "#0000FF"]})

    def test_transforms_go_through_groups(self):
        one, other, _ = layers(
            '<g transform="translate(100 50) scale(2)">'
            '<rect width="10" height="10" stroke="red"/></g>'
            '<rect width="10" height="10" transform="rotate(90 5 5)"/>'
        )
        self.assertEqual(one["stroke"]["width"], 2)
        self.assertEqual(one["transform"]["position"][0] - other["transform"]["position"][0], 105)

    def test_it_looks_as_the_file_does(self):
        made = layers(
            '<rect x="10" y="10" width="80" height="80" fill="#ff0000"/>'
            '<circle cx="150" cy="50" r="30" fill="#0000ff"/>'
        )
        made[-1]["transform"] = {"position": [100, 50, 0]}
        black = {"kind": "color", "color": "#000000"}
        data = scene_data(layers=made, size=[200, 100], background=black)
        pixels = draw_frame(Picture(files.from_data(data)), 0)
        self.assertEqual(pixels[50, 50, 2::-1].tolist(), [255, 0, 0])
        self.assertEqual(pixels[50, 5, 2::-1].tolist(), [0, 0, 0])

    def test_what_cannot_be_read_is_told(self):
        for body, told in (
            ("", "no paths"),
            ("<text>Hello</text>", "no paths"),
            ('<path d="M 0 nonsense"/>', "a path of it"),
            ('<rect width="2" height="2"/>' * (MOST_SHAPES + 1), "too many"),
        ):
            with self.subTest(told), self.assertRaises(ValueError) as caught:
                layers(body)
            self.assertIn(told, str(caught.exception))
        for content in (b"<svg", b'<!DOCTYPE svg [<!ENTITY a "b">]><svg/>'):
            with self.assertRaises(ValueError):
                layers_of_svg(content, "x", (0, 9))
