"""What a browser is shown where a page cannot be."""

from unittest import mock

from django.db import OperationalError, connection
from django.test import Client
from django.urls import reverse
from redis.exceptions import ConnectionError as RedisAway

from .base import PageTest


class FaultPagesTest(PageTest):
    def setUp(self):
        super().setUp()
        self.client.raise_request_exception = False

    def shown(self, status, told, address="/"):
        answer = self.client.get(address)
        self.assertContains(answer, told, status_code=status)
        self.assertContains(answer, 'href="/"', status_code=status)
        return answer

    def test_nothing_is_there(self):
        self.shown(404, "belongs to another account", "/scenes/999999/")
        self.shown(404, "Nothing is here", "/no/such/place/")

    def test_the_database_is_away(self):
        with mock.patch.object(connection, "cursor", side_effect=OperationalError("gone away")):
            answer = self.shown(503, "tries again by itself")
        self.assertContains(answer, '<meta http-equiv="refresh" content="3">', status_code=503)
        self.assertEqual(answer["Retry-After"], "3")
        self.assertNotContains(answer, "gone away", status_code=503)
        with mock.patch.object(connection, "cursor", side_effect=OperationalError("gone away")):
            answer = self.client.post(reverse("new-project"), {"name": "Winter"})
        self.assertContains(answer, "Go back and do it again", status_code=503)
        self.assertNotContains(answer, "refresh", status_code=503)

    def test_redis_is_away(self):
        with mock.patch("web.projects.views.render", side_effect=RedisAway("refused")):
            self.shown(503, "tries again by itself")

    def test_what_nobody_expected(self):
        with mock.patch("web.projects.views.render", side_effect=RuntimeError("a fault")):
            answer = self.shown(500, "was written into the log")
        self.assertNotContains(answer, "refresh", status_code=500)

    def test_a_form_that_was_open_for_too_long(self):
        careful = Client(enforce_csrf_checks=True)
        answer = careful.post(reverse("sign-in"), {"username": "ada"})
        self.assertContains(answer, "Nothing was changed", status_code=403)
