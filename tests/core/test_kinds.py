"""Every kind of thing is whole: all that it says has words."""

from string import Formatter
from unittest import TestCase

from balletto.picture.layers import PREPARED_LAYERS
from balletto.scene.eases import EASE_KINDS
from balletto.scene.effects import EFFECT_KINDS
from balletto.scene.forms.stroke import STROKE, Stroke
from balletto.scene.layers import LAYER_KINDS
from balletto.scene.masks import MASK_KINDS
from balletto.scene.moving.motion_blur import SHUTTER, MotionBlur
from balletto.scene.orders import ORDERS
from balletto.scene.selectors import SELECTOR_KINDS
from balletto.scene.selectors.spot import SPOT_SHAPES
from balletto.scene.shapes import SHAPE_KINDS

WORDED = [
    *((model, model.wording.words, model.wording.values) for model in EFFECT_KINDS.values()),
    *((model, model.wording.words, model.wording.values) for model in MASK_KINDS.values()),
    *((model, model.wording.words, model.wording.values) for model in SHAPE_KINDS.values()),
    *((model, model.words, model.values) for model in EASE_KINDS.values()),
    (Stroke, STROKE.words, STROKE.values),
    (MotionBlur, SHUTTER.words, SHUTTER.values),
]
# What is not said in a sentence of its own: switches, drawings, and what stands elsewhere.
_UNSAID = {"kind", "on", "path"}


def named_in(words):
    """The names in braces."""
    return {name for _, name, *_ in Formatter().parse(words) if name}


def fields_of(model):
    """What the values of a model are called in the file."""
    return {field.alias or key for key, field in model.model_fields.items()}


class LayersTest(TestCase):
    def test_every_kind_of_layer_is_prepared_and_named(self):
        self.assertEqual(set(PREPARED_LAYERS), set(LAYER_KINDS))
        for kind, prepared in PREPARED_LAYERS.items():
            self.assertIs(prepared.prepares, LAYER_KINDS[kind])
        titles = [model.title for model in LAYER_KINDS.values()]
        self.assertEqual(len(set(titles)), len(titles))


class WordsTest(TestCase):
    def test_every_value_of_every_kind_is_said(self):
        for model, words, values in WORDED:
            with self.subTest(model.__name__):
                self.assertEqual(named_in(words), set(values))
                self.assertEqual(fields_of(model) - _UNSAID, set(values))

    def test_every_value_of_every_selector_is_said(self):
        starts = [data for kind in SELECTOR_KINDS.values() for _, data in kind.starts((100, 80))]
        for data in starts:
            with self.subTest(data):
                kind = SELECTOR_KINDS[data["kind"]]
                model = SPOT_SHAPES[data["shape"]] if data["kind"] == "spot" else kind
                selector = model.model_validate(data, strict=False)
                said = named_in(selector.words) | named_in(selector.less_used)
                self.assertLessEqual(said, set(selector.said))
                apart = {"kind", "combine", "seed", "point", "ranks", "hold", "every", "soft"}
                apart |= {"shape"} if kind.title == "spot" else set()
                self.assertLessEqual(fields_of(model) - apart, said)

    def test_labels_are_told_apart(self):
        """No two values of a part have one name: lists of values name them by it."""
        tables = [values for _, _, values in WORDED]
        tables += [kind.values for kind in SELECTOR_KINDS.values()]
        for values in tables:
            labels = [said.label for said in values.values()]
            self.assertEqual(len(set(labels)), len(labels))

    def test_what_is_said_of_orders_and_eases_is_said_once(self):
        for said in ([o.words for o in ORDERS.values()], [e.title for e in EASE_KINDS.values()]):
            self.assertEqual(len(set(said)), len(said))
