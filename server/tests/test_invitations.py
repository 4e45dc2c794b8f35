"""Asking people in by mail, forgotten passwords, who is here, and the administrator's pages."""

import re
from datetime import timedelta
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest.mock import patch

from django.contrib.auth import get_user_model
from django.core import mail
from django.core.mail import send_mail
from django.db import IntegrityError
from django.test import Client, override_settings
from django.utils import timezone

from accounts.models import FailedTry, Invitation, Member, Presence
from config.administration import mails
from tests.base import ApiTest, Small

PASSWORD = "a long enough phrase 7"


def posted(client: Client, path: str, body: Any) -> Any:
    return client.post(f"/api{path}", body, content_type="application/json")


def link(letter: Any) -> str:
    """The address that a mail leads to."""
    return re.search(r"http://testserver(/\S+)", letter.body).group(1)


class Invitations(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.path = f"/projects/{self.small.project}"

    def ask(self, address: str = "Edda@example.org", role: str = "editor") -> Any:
        return self.post(f"{self.path}/invitations", {"address": address, "role": role})

    def token(self) -> str:
        return link(mail.outbox[-1]).split("/")[-1]

    def test_a_new_person_comes_in_by_the_link(self) -> None:
        asked = self.ask()
        self.assertEqual([(row["address"], row["role"]) for row in asked.json()], [("edda@example.org", "editor")])
        self.assertEqual(mail.outbox[0].to, ["edda@example.org"])
        self.assertIn("work in it", mail.outbox[0].body)
        token, edda = self.token(), Client()
        told = edda.get(f"/api/invited/{token}").json()
        self.assertEqual((told["role"], told["by"], told["user"]), ("editor", self.user.get_username(), ""))
        came = posted(edda, f"/invited/{token}", {"name": "Edda", "password": PASSWORD})
        self.assertEqual(came.json(), {"id": self.small.project, "user": "Edda"})
        self.assertEqual(edda.get("/api/session").json()["projects"][0]["role"], "editor")
        self.assertEqual(get_user_model().objects.get(username="Edda").email, "edda@example.org")
        # Once: the link and the row are gone.
        self.assertEqual(edda.get(f"/api/invited/{token}").status_code, 404)
        self.assertEqual(self.get(f"{self.path}/invitations").json(), [])

    def test_who_has_an_account_comes_in_as_that(self) -> None:
        rasmus = get_user_model().objects.create_user("Rasmus", password=PASSWORD)
        client = Client()
        client.force_login(rasmus)
        self.ask("rasmus@example.org", "reader")
        self.assertEqual(client.get(f"/api/invited/{self.token()}").json()["user"], "Rasmus")
        self.assertEqual(posted(client, f"/invited/{self.token()}", {}).json()["user"], "Rasmus")
        self.assertEqual(Member.objects.get(user=rasmus).role, "reader")
        # The owner's own way through a link changes nothing of theirs.
        self.ask("owner@example.org")
        self.assertEqual(posted(self.client, f"/invited/{self.token()}", {}).status_code, 200)
        self.assertFalse(Member.objects.filter(user=self.user).exists())

    def test_accounts_that_cannot_be_made(self) -> None:
        get_user_model().objects.create_user("Rasmus", password=PASSWORD)
        self.ask()
        for name, password, word in (
            ("rasmus", PASSWORD, "taken"),
            ("", PASSWORD, "Name"),
            ("two words here", PASSWORD, "Name"),
            ("Edda", "short", "Password"),
            ("Edda", "", "Password"),
        ):
            with self.subTest(name=name, password=password):
                answer = posted(Client(), f"/invited/{self.token()}", {"name": name, "password": password})
                self.assertEqual(answer.status_code, 422)
                self.assertIn(word, answer.json()["title"])
        self.assertEqual(Invitation.objects.count(), 1)
        self.assertFalse(get_user_model().objects.filter(username="Edda").exists())

    def test_links_that_do_not_count(self) -> None:
        self.ask()
        first = self.token()
        self.ask(role="reader")
        self.assertEqual(Client().get(f"/api/invited/{first}").status_code, 404)
        again = self.token()
        self.assertEqual(Client().get(f"/api/invited/{again}").json()["role"], "reader")
        Invitation.objects.update(created=timezone.now() - timedelta(days=15))
        self.assertEqual(posted(Client(), f"/invited/{again}", {"name": "A", "password": PASSWORD}).status_code, 404)
        self.ask()
        self.assertEqual(self.client.delete(f"/api{self.path}/invitations/edda@example.org").json(), [])
        self.assertEqual(Client().get(f"/api/invited/{self.token()}").status_code, 404)
        self.assertNotIn(again, str(list(Invitation.objects.values())))

    def test_where_no_mail_can_be_sent_nobody_is_invited(self) -> None:
        with patch("accounts.invitations.send_mail", side_effect=ConnectionRefusedError("no server")):
            answer = self.ask()
        self.assertEqual(answer.status_code, 503)
        self.assertIn("nobody was invited", answer.json()["title"])
        self.assertEqual(Invitation.objects.count(), 0)

    def test_old_invitations_wait_no_more(self) -> None:
        self.ask()
        Invitation.objects.update(created=timezone.now() - timedelta(days=15))
        self.assertEqual(self.get(f"{self.path}/invitations").json(), [])
        self.assertEqual(len(self.ask().json()), 1)

    def test_addresses_and_roles_that_are_none(self) -> None:
        for address in ("nowhere", "a b@example.org", "x@", "@example.org", "a@example.org\nBcc: b@example.org"):
            answer = self.ask(address)
            self.assertEqual(answer.status_code, 422, address)
            self.assertEqual(answer.json()["faults"][0]["field"], "address")
        self.assertEqual(self.ask(role="owner").status_code, 422)
        self.assertEqual(mail.outbox, [])
        for number in range(50):
            self.assertEqual(self.ask(f"p{number}@example.org").status_code, 200)
        self.assertEqual(self.ask("one@example.org").status_code, 422)
        self.assertEqual(self.ask("p7@example.org", "reader").status_code, 200)


class Forgotten(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.edda = get_user_model().objects.create_user("Edda", "edda@example.org", PASSWORD)
        get_user_model().objects.create_user("Rasmus", password=PASSWORD)

    def forget(self, name: str) -> int:
        return posted(Client(), "/password/forgotten", {"name": name}).status_code

    def by_link(self, new: str, path: str) -> Any:
        person, token = path.split("/")[-2:]
        return posted(Client(), "/password/by-link", {"person": person, "token": token, "new": new})

    def test_a_link_sets_a_new_password_once(self) -> None:
        inside = Client()
        inside.force_login(self.edda)
        self.assertEqual(self.forget("edda"), 204)
        path = link(mail.outbox[0])
        self.assertTrue(path.startswith("/new-password/"))
        weak = self.by_link("short", path)
        self.assertEqual(weak.status_code, 422)
        self.assertIn("New password", weak.json()["title"])
        self.assertEqual(self.by_link("another long phrase 8", path).status_code, 204)
        self.assertEqual(inside.get("/api/session").status_code, 401)
        signed = posted(Client(), "/sign-in", {"name": "Edda", "password": "another long phrase 8"})
        self.assertEqual(signed.status_code, 200)
        self.assertEqual(self.by_link("a third long phrase 9", path).status_code, 404)

    def test_nothing_tells_whether_there_is_an_account(self) -> None:
        for name in ("nobody", "Rasmus", "nobody@example.org"):
            self.assertEqual(self.forget(name), 204)
        self.assertEqual(mail.outbox, [])
        self.assertEqual(self.forget("EDDA@example.org"), 204)
        self.assertEqual(mail.outbox[0].to, ["edda@example.org"])

    def test_who_tried_wrong_passwords_too_often_still_gets_a_link(self) -> None:
        for _ in range(6):
            posted(Client(), "/sign-in", {"name": "Edda", "password": "wrong"})
        self.assertEqual(posted(Client(), "/sign-in", {"name": "Edda", "password": PASSWORD}).status_code, 429)
        self.assertEqual(self.forget("Edda"), 204)
        self.assertEqual(len(mail.outbox), 1)
        # And links that were asked for rest nobody's sign-in.
        FailedTry.objects.all().delete()
        for name in ("Edda", "edda", "EDDA", "eDDA", "edDA"):
            self.forget(name)
        self.assertEqual(self.forget("Edda"), 429)
        self.assertEqual(posted(Client(), "/sign-in", {"name": "Edda", "password": PASSWORD}).status_code, 200)

    def test_a_mail_server_that_is_away_tells_nothing(self) -> None:
        with patch("accounts.forgotten.send_mail", side_effect=TimeoutError()):
            self.assertEqual(self.forget("Edda"), 204)

    def test_wrong_links_and_too_many_of_them(self) -> None:
        self.forget("Edda")
        person, token = link(mail.outbox[0]).split("/")[-2:]
        for one, other in ((person, token[:-1]), ("!!", token), ("", ""), ("MTIzNDU2Nzg5", token)):
            answer = posted(
                Client(), "/password/by-link", {"person": one, "token": other, "new": "another long phrase 8"}
            )
            self.assertEqual(answer.status_code, 404, (one, other))
        for _ in range(4):
            self.forget("Edda")
        self.assertEqual(self.forget("Edda"), 429)
        self.assertEqual(len(mail.outbox), 5)
        FailedTry.objects.update(at=timezone.now() - timedelta(minutes=16))
        self.assertEqual(self.forget("Edda"), 204)


class Here(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.path = f"/projects/{self.small.project}/here"
        self.edda = get_user_model().objects.create_user("Edda", password=PASSWORD)
        Member.objects.create(project_id=self.small.project, user=self.edda, role="reader")
        self.other = Client()
        self.other.force_login(self.edda)

    def say(self, client: Client, window: str, stage: str, path: str = "") -> Any:
        return posted(client, path or self.path, {"window": window * 12, "stage": stage}).json()

    def test_each_hears_of_the_others(self) -> None:
        own = self.user.get_username()
        self.assertEqual(self.say(self.client, "a", "loads"), [])
        self.assertEqual(self.say(self.other, "b", "air"), [{"name": own, "stage": "loads"}])
        self.assertEqual(self.say(self.client, "a", "rooms"), [{"name": "Edda", "stage": "air"}])
        # The same person's second window is another one; a window is on one stage at a time.
        self.assertEqual(len(self.say(self.client, "c", "kit")), 2)
        self.assertEqual(Presence.objects.count(), 3)
        Presence.objects.filter(window="b" * 12).update(seen=timezone.now() - timedelta(seconds=25))
        self.assertEqual(self.say(self.client, "a", "rooms"), [{"name": own, "stage": "kit"}])

    def test_options_are_one_place_with_their_base(self) -> None:
        option = self.post(f"/projects/{self.small.project}/options", {"name": "Thicker"}).json()["id"]
        self.say(self.client, "a", "loads", f"/projects/{option}/here")
        self.assertEqual([one["stage"] for one in self.say(self.other, "b", "air")], ["loads"])

    def test_a_project_that_goes_in_that_moment(self) -> None:
        with patch.object(Presence.objects, "bulk_create", side_effect=IntegrityError("FOREIGN KEY constraint failed")):
            answer = posted(self.client, self.path, {"window": "a" * 12, "stage": "loads"})
        self.assertEqual((answer.status_code, answer.json()["code"]), (404, "not_found"))

    def test_windows_that_are_none(self) -> None:
        for window in ("", "A" * 12, "a" * 13, "x" * 12):
            answer = posted(self.client, self.path, {"window": window, "stage": "loads"})
            self.assertEqual(answer.status_code, 422, window)
        self.assertEqual(
            posted(self.client, "/projects/nothing/here", {"window": "a" * 12, "stage": "x"}).status_code, 404
        )


class Administration(ApiTest):
    def test_only_staff_comes_in(self) -> None:
        Small(self)
        for path in ("/admin/", "/admin/outbox/", "/admin/projects/project/", "/admin/auth/user/"):
            for client in (self.client, Client()):
                answer = client.get(path, follow=True)
                self.assertNotIn("Outbox", answer.content.decode(), path)
        self.assertFalse(self.get("/session").json()["staff"])
        self.assertEqual(Client().post("/admin/login/", {"username": "x", "password": "y"}).headers["Location"], "/")

    def test_the_administrators_pages(self) -> None:
        small = Small(self)
        boss = get_user_model().objects.create_superuser("Boss", "boss@example.org", PASSWORD)
        client = Client()
        client.force_login(boss)
        self.assertTrue(client.get("/api/session").json()["staff"])
        self.assertContains(client.get("/admin/"), "Outbox")
        for path in ("auth/user/", "projects/project/", "accounts/invitation/", "auth/user/add/"):
            self.assertEqual(client.get(f"/admin/{path}").status_code, 200, path)
        page = client.get(f"/admin/projects/project/{small.project}/change/")
        self.assertContains(page, self.user.get_username())
        self.assertEqual(client.get("/admin/projects/project/add/").status_code, 403)
        self.assertEqual(client.post(f"/admin/projects/project/{small.project}/delete/").status_code, 403)
        made = client.post(
            "/admin/auth/user/add/",
            {"username": "Tove", "email": "t@example.org", "usable_password": "true", "password1": PASSWORD, "password2": PASSWORD},
        )  # fmt: skip
        self.assertEqual(made.status_code, 302)
        self.assertTrue(Client().login(username="Tove", password=PASSWORD))

    def test_mails_in_the_folder_are_shown_as_they_were_sent(self) -> None:
        with TemporaryDirectory() as folder:
            backend = "django.core.mail.backends.filebased.EmailBackend"
            with override_settings(EMAIL_BACKEND=backend, EMAIL_FILE_PATH=folder, OUTBOX=Path(folder)):
                send_mail("Größe", "A line\nand https://example.org/é", None, ["edda@example.org"])
                send_mail("Second", "Two", None, ["rasmus@example.org"])
                found = {mail["subject"]: mail for mail in mails(Path(folder))}
                boss = get_user_model().objects.create_superuser("Boss", "boss@example.org", PASSWORD)
                client = Client()
                client.force_login(boss)
                self.assertContains(client.get("/admin/outbox/"), "Größe")
        self.assertEqual(set(found), {"Größe", "Second"})
        self.assertEqual(found["Größe"]["to"], "edda@example.org")
        self.assertIn("and https://example.org/é", found["Größe"]["text"])
        self.assertEqual(mails(Path(folder) / "nowhere"), [])
