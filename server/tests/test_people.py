"""Signing in, and who may do what: every route, every role."""

import json
import re
from datetime import timedelta
from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.hashers import make_password
from django.test import Client
from django.utils import timezone

from accounts.models import AccessToken, FailedTry, Member
from api.routes import api
from projects.models import Project
from tests.base import ApiTest, Small

PASSWORD = "a long enough phrase 7"
# Routes that change nothing, though they are sent as if: a reader may use them.
READING = {"preview", "here", "sweep", "read_schedule", "copy_project", "open_issue"}
OWNERS = {"people", "invitations", "invite", "uninvite", "put_person", "drop_person", "set_project_state"}


class People(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        make = get_user_model().objects.create_user
        self.editor, self.reader, self.stranger = (
            make(name, password=PASSWORD) for name in ("Edda", "Rasmus", "Selma")
        )

    def client_of(self, user: Any) -> Client:
        client = Client()
        client.force_login(user)
        return client

    def share(self, name: str, role: str) -> Any:
        return self.client.put(
            f"/api/projects/{self.small.project}/people", {"name": name, "role": role}, content_type="application/json"
        )

    def routes(self) -> list[tuple[str, str, str]]:
        """Method, path and operation of every route of a project."""
        found = []
        for path, methods in api.get_openapi_schema()["paths"].items():
            if "{project_id}" in path or "{option_id}" in path:
                found += [(method, path, operation["operationId"]) for method, operation in methods.items()]
        return found

    def answer(self, client: Client, method: str, path: str) -> int:
        filled = path.replace("{project_id}", self.small.project).replace("{option_id}", self.small.project)
        filled = re.sub(r"\{\w+\}", "x1", filled)
        return client.generic(method.upper(), filled, "{}", content_type="application/json").status_code

    def test_every_route_by_role(self) -> None:
        self.share("Edda", "editor")
        self.share("Rasmus", "reader")
        stranger, reader, editor = (self.client_of(user) for user in (self.stranger, self.reader, self.editor))
        routes = self.routes()
        self.assertGreater(len(routes), 40)
        version = Project.objects.get(pk=self.small.project).version
        for method, path, operation in routes:
            if operation == "tasks":
                continue  # everybody's own tasks alone
            with self.subTest(route=f"{method} {path}"):
                # Malformed bodies are told before anything else; what is well formed is denied as if it were not there.
                self.assertIn(self.answer(stranger, method, path), (404, 422, 400))
                self.assertIn(self.answer(Client(), method, path), (401, 403))
                told = self.answer(reader, method, path)
                if method != "get" and operation not in READING:
                    self.assertIn(told, (403, 422, 400), operation)
                if operation in OWNERS:
                    self.assertIn(self.answer(editor, method, path), (403, 422))
        self.assertEqual(Project.objects.get(pk=self.small.project).version, version)
        self.assertEqual(Project.objects.get(pk=self.small.project).state, "open")

    def test_what_roles_can_do(self) -> None:
        change = {"base_version": self.document(self.small.project)["version"], "label": "x", "changes": [
            {"op": "set", "kind": "room", "id": self.small.ids["room"], "fields": {"floor_area_m2": 21.0}}]}  # fmt: skip
        path = f"/api/projects/{self.small.project}"

        def send(user: Any) -> Any:
            return self.client_of(user).post(f"{path}/changes", change, content_type="application/json")

        self.assertEqual(send(self.editor).status_code, 404)
        self.assertEqual(self.share("edda", "reader").status_code, 200)
        refused = send(self.editor)
        self.assertEqual(refused.status_code, 403)
        self.assertIn("may read", refused.json()["title"])
        self.assertEqual(self.client_of(self.editor).get(f"{path}/document").status_code, 200)
        preview = self.client_of(self.editor).post(f"{path}/preview", change, content_type="application/json")
        self.assertEqual(preview.status_code, 200)
        listed = self.client_of(self.editor).get("/api/session").json()["projects"]
        self.assertEqual([(p["id"], p["role"]) for p in listed], [(self.small.project, "reader")])
        # Raised, the same edit goes in; an option goes by its base; withdrawn, nothing is there any more.
        self.share("Edda", "editor")
        self.assertEqual(send(self.editor).status_code, 200)
        option = (
            self.client_of(self.editor)
            .post(f"{path}/options", {"name": "Hers"}, content_type="application/json")
            .json()["id"]
        )
        self.assertEqual(self.client.get(f"/api/projects/{option}/document").status_code, 200)
        self.assertEqual(self.client_of(self.stranger).get(f"/api/projects/{option}/document").status_code, 404)
        archived = self.client_of(self.editor).put(
            f"{path}/state", {"state": "deleted"}, content_type="application/json"
        )
        self.assertEqual(archived.status_code, 403)
        self.client.delete(f"{path}/people/Edda")
        self.assertEqual(self.client_of(self.editor).get(f"{path}/document").status_code, 404)
        self.assertEqual(Member.objects.count(), 0)

    def test_sharing_with_nobody_or_the_owner(self) -> None:
        for name in ("Nobody", self.user.get_username()):
            answer = self.share(name, "editor")
            self.assertEqual(answer.status_code, 422)
            self.assertIn(name, answer.json()["title"])
        self.assertEqual(self.share("Edda", "king").status_code, 422)

    def enter(self, name: str, password: str, client: Client | None = None) -> Any:
        return (client or Client()).post(
            "/api/sign-in", {"name": name, "password": password}, content_type="application/json"
        )

    def test_in_and_out(self) -> None:
        client = Client()
        self.assertEqual(client.get("/api/session").status_code, 401)
        self.assertEqual(self.enter("Edda", PASSWORD, client).json(), {"user": "Edda"})
        self.assertEqual(client.get("/api/session").json()["user"], "Edda")
        self.assertEqual(client.post("/api/sign-out", {}, content_type="application/json").status_code, 422)

        def leave(sessions: str) -> int:
            return client.post("/api/sign-out", {"sessions": sessions}, content_type="application/json").status_code

        other, stranger = Client(), Client()
        self.enter("Edda", PASSWORD, other)
        self.enter("Selma", PASSWORD, stranger)
        self.assertEqual(leave("this"), 204)
        self.assertEqual((client.get("/api/session").status_code, other.get("/api/session").status_code), (401, 200))
        self.enter("Edda", PASSWORD, client)
        self.assertEqual(leave("all"), 204)
        codes = [one.get("/api/session").status_code for one in (client, other, stranger)]
        self.assertEqual(codes, [401, 401, 200])

    def test_passwords_are_kept_by_argon2_and_old_ones_come_over(self) -> None:
        """One of an earlier version lets in, and is hashed anew by it."""
        self.assertTrue(self.editor.password.startswith("argon2$"))
        self.editor.password = make_password("an old password", hasher="pbkdf2_sha256")
        self.editor.save()
        self.assertEqual(self.enter("Edda", "an old password").status_code, 200)
        self.editor.refresh_from_db()
        self.assertTrue(self.editor.password.startswith("argon2$"))
        self.assertTrue(self.editor.check_password("an old password"))

    def test_another_pages_form_signs_nobody_in(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        self.assertEqual(self.enter("Edda", PASSWORD, strict).status_code, 403)

    def test_wrong_tries_rest_a_name_and_tell_nothing(self) -> None:
        told = {self.enter(name, "wrong wrong wrong").json()["title"] for name in ("Edda", "Nobody")}
        self.assertEqual(told, {"Name or password is wrong."})
        for _ in range(4):
            self.enter("Edda", "wrong again")
        rested = self.enter("Edda", PASSWORD)
        self.assertEqual(rested.status_code, 429)
        self.assertIn("15 minutes", rested.json()["title"])
        self.assertEqual(self.enter("Rasmus", PASSWORD).status_code, 200)
        FailedTry.objects.update(at=timezone.now() - timedelta(minutes=16))
        self.assertEqual(self.enter("Edda", PASSWORD).status_code, 200)

    def test_a_new_password_ends_other_sessions(self) -> None:
        here, there = Client(), Client()
        for client in (here, there):
            self.enter("Edda", PASSWORD, client)

        def change(old: str, new: str) -> Any:
            return here.post("/api/password", {"old": old, "new": new}, content_type="application/json")

        self.assertEqual(change("wrong", "another long phrase 8").status_code, 422)
        for weak in ("short", "password123", "Edda"):
            answer = change(PASSWORD, weak)
            self.assertEqual(answer.status_code, 422, weak)
            self.assertIn("New password", answer.json()["title"])
        self.assertEqual(change(PASSWORD, "another long phrase 8").status_code, 204)
        self.assertEqual(here.get("/api/session").status_code, 200)
        self.assertEqual(there.get("/api/session").status_code, 401)
        self.assertEqual(self.enter("Edda", PASSWORD).status_code, 401)


class Tokens(ApiTest):
    """Programs come in by a token, and act as the person whose it is."""

    def setUp(self) -> None:
        super().setUp()
        self.small = Small(self)
        self.made = self.post("/tokens", {"name": "nightly run"}).json()
        self.program = Client(enforce_csrf_checks=True)

    def ask(self, method: str, path: str, token: str, body: Any = None) -> Any:
        return self.program.generic(
            method, f"/api{path}", json.dumps(body or {}), content_type="application/json", headers={"authorization": f"Bearer {token}"},
        )  # fmt: skip

    def test_a_program_reads_and_writes_without_a_session(self) -> None:
        token, path = self.made["token"], f"/projects/{self.small.project}"
        self.assertEqual(self.ask("GET", f"{path}/document", token).status_code, 200)
        change = {"base_version": self.document(self.small.project)["version"], "label": "by a program", "changes": [
            {"op": "set", "kind": "room", "id": self.small.ids["room"], "fields": {"floor_area_m2": 21.0}}]}  # fmt: skip
        self.assertEqual(self.ask("POST", f"{path}/changes", token, change).status_code, 200)
        entry = self.get(f"{path}/history").json()[0]
        self.assertEqual((entry["label"], entry["author"]), ("by a program", self.user.get_username()))
        self.assertIsNotNone(self.get("/tokens").json()[0]["used"])

    def test_wrong_and_withdrawn_tokens_are_let_in_nowhere(self) -> None:
        path = f"/projects/{self.small.project}/document"
        for token in ("", "pendrum_nothing", self.made["token"][:-1], self.made["token"].upper()):
            self.assertEqual(self.ask("GET", path, token).status_code, 401, token)
        self.assertEqual(self.client.delete(f"/api/tokens/{self.made['id']}").status_code, 204)
        self.assertEqual(self.ask("GET", path, self.made["token"]).status_code, 401)
        self.assertEqual(self.client.delete(f"/api/tokens/{self.made['id']}").status_code, 404)

    def test_a_token_reaches_no_further_than_its_person(self) -> None:
        other = get_user_model().objects.create_user("Tove", password=PASSWORD)
        client = Client()
        client.force_login(other)
        theirs = client.post("/api/tokens", {"name": "mine"}, content_type="application/json").json()["token"]
        self.assertEqual(self.ask("GET", f"/projects/{self.small.project}/document", theirs).status_code, 404)
        # It makes and lists no tokens, and nobody sees another's.
        self.assertEqual(self.ask("GET", "/tokens", theirs).status_code, 401)
        self.assertIn(self.ask("POST", "/tokens", theirs, {"name": "more"}).status_code, (401, 403))
        self.assertEqual([row["name"] for row in client.get("/api/tokens").json()], ["mine"])
        self.assertEqual(client.delete(f"/api/tokens/{self.made['id']}").status_code, 404)
        other.is_active = False
        other.save()
        self.assertEqual(self.ask("GET", "/session", theirs).status_code, 401)

    def test_only_the_digest_is_kept_and_not_without_end(self) -> None:
        self.assertNotIn(self.made["token"], str(list(AccessToken.objects.values())))
        for number in range(19):
            self.assertEqual(self.post("/tokens", {"name": f"t{number}"}).status_code, 201)
        self.assertEqual(self.post("/tokens", {"name": "one too many"}).status_code, 422)
        self.assertEqual(self.post("/tokens", {"name": ""}).status_code, 422)

    def test_the_page_of_routes_comes_from_this_server_alone(self) -> None:
        page = self.client.get("/api/docs")
        self.assertEqual(page.status_code, 200)
        sources = re.findall(r'(?:src|href)="([^"]+)"', page.content.decode())
        self.assertGreater(len(sources), 2)
        self.assertTrue(all(source.startswith("/static/") for source in sources), sources)
        self.assertGreater(len(self.client.get("/api/openapi.json").json()["paths"]), 40)
