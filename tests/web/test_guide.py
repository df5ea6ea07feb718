"""The guide as a page: found, asked, seen moving, tried."""

from django.urls import reverse

from balletto.scene import files
from balletto.understanding.asked import is_question
from web.guide.examples import examples, shown
from web.guide.passages import found_for, passages

from .base import PageTest


class GuideTest(PageTest):
    def test_it_has_all_sections_and_examples_that_can_be_tried(self):
        page = self.client.get(reverse("guide")).content.decode()
        self.assertIn('<h2 id="saying-it">Saying it</h2>', page)
        self.assertGreater(len(examples()), 40)
        self.assertEqual(page.count("Try it</a>"), page.count('class="example"'))
        self.assertNotIn("<h1>Guide</h1>", page.split("<h2", 1)[1])

    def test_what_is_asked_is_answered_by_the_passage_that_is_meant(self):
        for question, word in (
            ("how do I make it loop", "a wave"),
            ("where is easing", "ease"),
            ("can I do letters one by one?", "gap"),
            ("how can I get this out with a transparent background?", "ProRes"),
            ("motion blur?", "scene"),
            ("I liked it better before lunch, how do I get that version back", "History"),
            ("how to export an mp4", "Render clip"),
            ("where do I put my own typeface", "Fonts"),
        ):
            with self.subTest(question):
                self.assertTrue(is_question(question, is_refused=True))
                self.assertIn(word, found_for(question)[0].text)
        for text in ("letters rise 100", "howl", "whatever red", "can you make it red?"):
            self.assertFalse(is_question(text), text)
        self.assertEqual(found_for("zzz"), [])

    def test_every_question_of_the_guide_is_answered_by_itself(self):
        asked = [each for each in passages() if each.asked]
        self.assertGreater(len(asked), 20)
        for each in asked:
            with self.subTest(each.asked):
                self.assertEqual(found_for(each.asked)[0], each)
                if each.example:
                    self.assertTrue(each.example in examples() or "“" in each.example)

    def test_what_is_found_stands_above_and_what_is_not_is_told(self):
        page = self.client.get(reverse("guide"), {"find": "how do I undo"}).content.decode()
        self.assertIn(
            "Ctrl+Shift+Z does it again", page.split("handbook__found")[1].split("</section")[0]
        )
        page = self.client.get(reverse("guide"), {"find": "<b>zzz"}).content.decode()
        self.assertIn("Nothing is said of “&lt;b&gt;zzz”", page)

    def test_examples_move_and_are_tried_in_the_scene_of_last(self):
        number = examples().index("words pop in one by one")
        film = self.client.get(reverse("guide-film", args=[number]))
        self.assertEqual(film["Content-Type"], "image/jpeg")
        self.assertEqual(self.client.get(reverse("guide-film", args=[9999])).status_code, 404)
        tried = self.client.get(reverse("guide-try", args=[number]))
        self.assertIn(f"/scenes/{self.scene.pk}/?say=words+pop+in", tried["Location"])
        for example in examples():
            with self.subTest(example):
                files.from_data(shown(example))

    def test_the_line_answers_questions(self):
        address = reverse("say", args=[self.scene.pk])
        told = self.client.get(address, {"text": "how do I make it loop?", "layer": "t1"}).json()
        self.assertIn("a wave", told["answer"]["text"])
        self.assertEqual(told["next"][0]["text"], "loop it")
        self.assertIn("/guide/?find=how", told["answer"]["address"])
        told = self.client.get(address, {"text": "letters rise 100", "layer": "t1"}).json()
        self.assertNotIn("answer", told)
