"""Whose is what: pages want a person, and give nobody another person's things."""

from django.contrib.auth import get_user_model
from django.core.cache import cache
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, TestCase, override_settings
from django.urls import get_resolver, reverse
from django.utils import timezone

from balletto.clip.errors import ClipError
from balletto.clip.export_settings import usual_settings
from balletto.command import CommandError
from tests.core.media import media_folder
from web.accounts.models import VALID_FOR, Invitation, invite
from web.library.models import FontFile, MediaFile
from web.library.store import opened
from web.projects import history
from web.projects.models import Project, Take
from web.renders import queue
from web.renders.models import Render
from web.services.passwords import new_password

from .base import PageTest

DIGEST = "0" * 64
EXPORT = {
    "format": "mp4",
    "size": [320, 180],
    "rate": "30",
    "frames": [0, 9],
    "fit": None,
    "quality": 80,
    "loops": 0,
}
OPEN = {"sign-in", "sign-in-here", "token", "sign-up", "font-rules", "slice-rules"}
# Addresses that name nothing of anybody.
PLAIN = {
    "projects", "new-project", "renders", "keep-renders", "sign-out", "library", "send-file",
    "bin", "change-password", "fonts", "font-list", "send-fonts", "remove-font", "own-font-rules",
    "guide",
}  # fmt: skip
SHIPPED = {
    "show-stock",
    "stock-poster",
    "guide-film",
    "guide-try",
}  # the same for all who are signed in
BY_GET = {
    "file-poster",
    "font-file",
    "workbench",
    "parts",
    "likely",
    "read",
    "say",
    "bin",
    "scene-film",
    "frame",
    "poster",
    "motion",
    "keyframes",
    "film",
    "history",
    "places",
    "values",
    "frame-run",
    "download-scene",
    "clip",
    "render-poster",
    "ask-render",
    "sound",
    "show-file",
    "new-scene",
}


class AccessTest(PageTest):
    def setUp(self):
        super().setUp()
        self.file = MediaFile.objects.create(
            owner=self.boris, name="moon-0.png", title="moon.png", kind="still", bytes=1
        )

        self.font = FontFile.objects.create(
            owner=self.boris, name="0.ttf", family="Perihelion", style="Regular", weight=400,
            width=100, is_italic=False, kind="sans", glyphs=1, embedding="installable", bytes=1,
        )  # fmt: skip

    def arguments(self, name, scene, project, render):
        return {
            "frame": [scene.pk, scene.digest, 3],
            "places": [scene.pk, scene.digest, 3],
            "values": [scene.pk, scene.digest, 3],
            "frame-run": [scene.pk, scene.digest, 3, 2],
            "poster": [scene.pk, scene.digest],
            "motion": [scene.pk, scene.digest],
            "keyframes": [scene.pk, scene.digest],
            "new-scene": [project.pk],
            "font-file": [self.font.pk],
            "open-new-scene": [project.pk],
            "rename-project": [project.pk],
            "remove-project": [project.pk],
            "restore-project": [project.pk],
            "scene-film": [scene.pk, scene.digest],
            "scene-from-file": [project.pk],
        }.get(name, [render.pk] if "render" in name or name == "clip" else [scene.pk])

    def all_addresses(self):
        """Every named address with the things of Boris in it."""
        scene, project = self.other, Project.objects.get(owner=self.boris)
        render = Render.objects.create(
            owner=self.boris,
            scene=scene,
            name="Secret",
            document={},
            digest=DIGEST,
            export_settings=EXPORT,
            count=9,
        )
        for name in [key for key in get_resolver().reverse_dict if isinstance(key, str)] + [
            key
            for _, resolver in get_resolver().namespace_dict.items()
            for key in resolver[1].reverse_dict
        ]:
            if name in OPEN:
                continue
            plain = name in PLAIN
            arguments = self.arguments(name, scene, project, render)
            if name == "sound":
                arguments = [scene.pk, scene.digest]
            if name in ("show-file", "remove-file", "file-poster"):
                arguments = [self.file.pk]
            if name in SHIPPED:
                arguments = [1] if name.startswith("guide") else ["stock-stars.mp4"]
            if name in ("ask-render", "fit-poster"):
                arguments = [scene.pk]
            if name == "back":
                arguments = [scene.pk, 1]
            if name.endswith("-take") and name != "keep-take":
                arguments = [scene.pk, Take.objects.get_or_create(scene=scene, name="A")[0].pk]
            if name == "film":
                arguments = [scene.pk, scene.digest, "t1", "rise-and-fade"]
            yield name, reverse(name, args=[] if plain else arguments), plain

    def test_every_page_wants_a_person(self):
        stranger = Client()
        count = 0
        for name, address, _ in self.all_addresses():
            with self.subTest(name):
                if name == "sign-out":
                    continue
                response = stranger.get(address)
                self.assertEqual(response.status_code, 302, name)
                self.assertIn("/accounts/sign-in/", response["Location"])
                count += 1
        self.assertGreater(count, 20)

    def test_nobody_reaches_what_is_anothers(self):
        for name, address, plain in self.all_addresses():
            if plain or name in SHIPPED:
                continue
            with self.subTest(name):
                send = self.client.get if name in BY_GET else self.client.post
                self.assertEqual(send(address, {"layer": "t1"}).status_code, 404)

    def test_own_things_are_reached(self):
        """The other way round: the same addresses work for their owner."""
        self.client.force_login(self.boris)
        for name, address, _ in self.all_addresses():
            if name in BY_GET - {
                "likely", "clip", "render-poster", "sound", "show-file", "file-poster",
                "font-file",
            }:  # fmt: skip
                with self.subTest(name):
                    values = {"layer": "t1", "text": "12"}
                    self.assertEqual(self.client.get(address, values).status_code, 200)

    def test_a_digest_opens_no_other_scene(self):
        address = reverse("frame", args=[self.scene.pk, self.other.digest.replace("a", "b"), 0])
        self.assertEqual(self.client.get(address).status_code, 404)

    def test_posts_want_the_token_of_the_page(self):
        careful = Client(enforce_csrf_checks=True)
        careful.force_login(self.ada)
        for name in ("edit", "undo", "redo", "upload-scene", "ask-render"):
            with self.subTest(name):
                address = reverse(name, args=[self.scene.pk])
                self.assertEqual(careful.post(address, {}).status_code, 403)

    def test_content_security_policy(self):
        for address in (reverse("projects"), reverse("workbench", args=[self.scene.pk])):
            response = self.client.get(address)
            policy = response["Content-Security-Policy"]
            scripts = next(part for part in policy.split(";") if "script-src" in part)
            self.assertEqual(scripts.split(), ["script-src", "'self'"])
            self.assertIn("frame-ancestors 'none'", policy)
            body = response.content.decode()
            self.assertNotRegex(body, r"<script(?![^>]*\bsrc=)")
            self.assertNotRegex(body, r"\son[a-z]+=\"")
            self.assertNotIn("http://", body.replace("http://www.w3.org", ""))

    def test_no_debugging(self):
        from django.conf import settings

        self.assertFalse(settings.DEBUG)


# Passwords are hashed slowly, which is not what is tested here.
QUICK = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@override_settings(PASSWORD_HASHERS=QUICK)
class SignInLimitTest(PageTest):
    """Guessing passwords is slow, and making accounts can be left to who runs the application."""

    def setUp(self):
        super().setUp()
        self.client.logout()
        cache.clear()
        self.ada.set_password("a-long-way")
        self.ada.save()

    def sign_in(self, password, name="ada", address="sign-in"):
        values = {"username": name, "password": password}
        return self.client.post(reverse(address), values)

    def test_after_many_failures_even_the_right_one_waits(self):
        for _ in range(7):
            self.assertEqual(self.sign_in("wrong").status_code, 200)
        self.assertEqual(self.sign_in("wrong").status_code, 429)
        answer = self.sign_in("a-long-way")
        self.assertContains(answer, "Try again in 10 minutes", status_code=429)
        here = self.sign_in("a-long-way", address="sign-in-here")
        self.assertIn("Try again", here.json()["message"])
        other = self.sign_in("wrong", name="boris")
        self.assertEqual(other.status_code, 200, "others are not kept waiting")
        cache.clear()
        self.assertEqual(self.sign_in("a-long-way").status_code, 302)

    def test_a_few_failures_are_forgiven_by_the_right_one(self):
        for _ in range(3):
            for _ in range(4):
                self.sign_in("wrong")
            self.assertEqual(self.sign_in("a-long-way").status_code, 302)
            self.client.logout()

    def test_a_password_is_changed_by_its_owner(self):
        self.client.force_login(self.ada)
        address = reverse("change-password")
        words = {"old_password": "wrong", "new_password1": "round-the-sun-9",
                 "new_password2": "round-the-sun-9"}  # fmt: skip
        self.assertContains(self.client.post(address, words), "not your password as it is now")
        answer = self.client.post(address, {**words, "old_password": "a-long-way"}, follow=True)
        self.assertContains(answer, "Your password is changed.")
        self.client.logout()
        self.assertEqual(self.sign_in("a-long-way").status_code, 200)
        self.assertEqual(self.sign_in("round-the-sun-9").status_code, 302)

    def test_a_lost_password_is_reset_by_a_command(self):
        made = new_password("ada")
        self.assertEqual(self.sign_in(made).status_code, 302)
        with self.assertRaisesRegex(CommandError, "there is no account “eve”"):
            new_password("eve")

    @override_settings(SIGN_UP="closed")
    def test_accounts_are_not_made_where_that_is_closed(self):
        self.assertNotContains(self.client.get(reverse("sign-in")), "Make an account")
        values = {"username": "eve", "password1": "a-long-way", "password2": "a-long-way"}
        answer = self.client.post(reverse("sign-up"), values)
        self.assertContains(answer, "ask who runs this", status_code=403)
        self.assertFalse(get_user_model().objects.filter(username="eve").exists())


class InvitationTest(TestCase):
    """Where an account takes an invitation, each is for one."""

    def sign_up(self, name: str, code: str):
        values = {"username": name, "password1": "a-long-way", "password2": "a-long-way"}
        return self.client.post(reverse("sign-up"), {**values, "invitation": code})

    @override_settings(SIGN_UP="invited")
    def test_an_invitation_is_for_one_account(self):
        code = invite()
        page = self.client.get(reverse("sign-up"), {"invitation": code})
        self.assertContains(page, f'value="{code}"')
        self.assertContains(page, "personal information. Your password")
        self.assertContains(self.sign_up("eve", "none"), "is none", status_code=200)
        # What is wrong otherwise does not use it up.
        values = {"username": "eve", "password1": "a", "password2": "b", "invitation": code}
        self.client.post(reverse("sign-up"), values)
        self.assertEqual(self.sign_up("eve", code).status_code, 302)
        self.client.logout()
        self.assertContains(self.sign_up("mallory", code), "used already")
        self.assertEqual(Invitation.objects.get().used_by.username, "eve")

    @override_settings(SIGN_UP="invited")
    def test_an_old_one_is_none(self):
        code = invite()
        Invitation.objects.update(made_at=timezone.now() - VALID_FOR)
        self.assertContains(self.sign_up("eve", code), "older than two weeks")
        self.assertFalse(get_user_model().objects.exists())

    def test_the_code_is_not_kept(self):
        code = invite()
        self.assertNotIn(code, str(list(Invitation.objects.values())))


class QuotaTest(PageTest):
    """What one person may fill."""

    def test_files_together(self):
        self.keep_files_apart()
        content = (media_folder() / "moon.png").read_bytes()
        with override_settings(MEDIA_PERSON_MAX_BYTES=len(content) + 10):
            sent = {"file": SimpleUploadedFile("moon.png", content)}
            self.assertEqual(self.client.post(reverse("send-file"), sent).status_code, 200)
            again = {"file": SimpleUploadedFile("again.png", content)}
            self.assertEqual(self.client.post(reverse("send-file"), again).status_code, 422)
            photo = (media_folder() / "photo.jpg").read_bytes()
            other = {"file": SimpleUploadedFile("photo.jpg", photo)}
            answer = self.client.post(reverse("send-file"), other)
            self.assertIn("are left: remove some", answer.json()["message"])

    @override_settings(RENDERS_PERSON_MOST=1)
    def test_clips_that_wait(self):
        export = usual_settings(opened(history.newest(self.scene).document, self.ada.pk), "mp4")
        queue.ask(self.scene, self.ada, export)
        with self.assertRaisesRegex(ClipError, "1 of your clips are not made yet"):
            queue.ask(self.scene, self.ada, export)


class AccountTest(PageTest):
    def test_signing_up_and_out(self):
        visitor = Client()
        words = {
            "username": "cleo",
            "password1": "nine-winter-moons",
            "password2": "nine-winter-moons",
        }
        self.assertRedirects(visitor.post(reverse("sign-up"), words), reverse("projects"))
        page = visitor.get(reverse("projects"))
        self.assertNotContains(page, "Opening")
        self.assertContains(page, "Give it a name above to begin")
        visitor.post(reverse("sign-out"))
        self.assertEqual(visitor.get(reverse("projects")).status_code, 302)

    @override_settings(DEMO_NAME="orrery", DEMO_PASSWORD="on-the-house")  # noqa: S106
    def test_the_demo_account_is_filled_in_where_there_is_one(self):
        self.assertContains(Client().get(reverse("sign-in")), 'value="on-the-house"')

    def test_nothing_is_filled_in_elsewhere(self):
        page = Client().get(reverse("sign-in")).content.decode()
        self.assertIn('name="password"', page)
        self.assertNotIn("demo account", page)
