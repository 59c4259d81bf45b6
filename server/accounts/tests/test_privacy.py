"""What is kept of a person: told to them, shut, erased. What they did stays the crew's."""

import json
from io import StringIO

from django.apps import apps
from django.core.management import CommandError, call_command
from django.db import models
from django.test import override_settings

from server.accounts.models import Event, User
from server.bench.models import BendMade, Stick
from server.bench.tests.support import BenchTestCase, act, bent
from server.tests.support import PASSWORD, Api


class Person(BenchTestCase):
    def setUp(self):
        super().setUp()
        User.objects.filter(username="ben").update(first_name="Benjamin", last_name="Bendwell", email="ben@example.org")
        self.theirs = Api(self.bender)
        self.do(act("cut"), bent(1, 90), act("fitted"), act("checked", item="plumb"), api=self.theirs)
        Api().send("POST", "/session", {"username": "ben", "password": PASSWORD})

    def told(self, *words):
        said = StringIO()
        call_command("people", *words, stdout=said)
        return said.getvalue()

    def test_all_that_is_kept_is_told_without_secrets(self):
        told = json.loads(self.told("export", "ben"))
        self.assertEqual(told["person"]["email"], "ben@example.org")
        self.assertEqual([one["angle"] for one in told["bend made, by"]], [90.0])
        self.assertGreater(len(told["signed in"]), 0)
        self.assertNotIn("argon2", json.dumps(told))

    def test_shut_out_they_are_nobody_everywhere_until_they_are_let_back(self):
        self.told("shut-out", "ben")
        self.assertEqual(self.theirs.send("GET", "/jobs").status_code, 401)
        body = {"username": "ben", "password": PASSWORD}
        self.assertEqual(Api().send("POST", "/session", body).status_code, 401)
        self.told("let-back", "ben")
        self.assertEqual(Api().send("POST", "/session", body).status_code, 200)

    def test_erased_nothing_tells_who_they_were_and_what_they_did_stays(self):
        with self.assertRaisesRegex(CommandError, "nothing was done"):
            self.told("erase", "ben")
        self.assertIn("Former member", self.told("erase", "ben", "--yes"))
        for model in apps.get_models():
            texts = [one for one in model._meta.concrete_fields if isinstance(one, models.CharField | models.JSONField)]
            for row in model._default_manager.values(*(one.name for one in texts)):
                for part in ("Benjamin", "Bendwell", "ben@example.org"):
                    self.assertNotIn(part, json.dumps(row, default=str), model)
        self.assertEqual(BendMade.objects.get().by.get_full_name(), f"Former member {self.bender.pk}")
        self.assertEqual(Stick.objects.get().fit_checks["plumb"]["by"], f"Former member {self.bender.pk}")
        self.assertEqual(self.theirs.send("GET", "/jobs").status_code, 401)
        self.assertGreater(Event.objects.filter(by=self.bender).count(), 0)
        with self.assertRaises(CommandError):
            self.told("export", "ben")


@override_settings(EMAIL_HOST="mail.example")
class Told(BenchTestCase):
    def test_wrong_guesses_are_in_the_history_and_fill_it_with_a_few_lines(self):
        for _ in range(4):
            Api().send("POST", "/session", {"username": "ben", "password": "guess"})
        Api().send("POST", "/session", {"username": "nobody", "password": "guess"})
        lines = [one["about"] for one in self.api.send("GET", "/history").json()["lines"] if "failed" in one["what"]]
        self.assertEqual(lines, ["1 as ben from 127.0.0.1"])
