"""A small client of Pendrum's HTTP API, on the standard library alone; docs/api.md has an example."""

import contextlib
import json
import time
from http.cookiejar import CookieJar
from typing import Any
from urllib.error import HTTPError
from urllib.parse import urlencode
from urllib.request import HTTPCookieProcessor, Request, build_opener


class Refused(Exception):
    """The server's refusal: `problem` has its code, title and faulty fields."""

    def __init__(self, problem: dict[str, Any]) -> None:
        super().__init__(problem.get("title", "refused"))
        self.problem = problem


class Pendrum:
    """A session with a server."""

    def __init__(self, base: str, token: str = "") -> None:
        """With a token of the person it acts for; without one, sign in."""
        self.base, self.token = base.rstrip("/"), token
        self._cookies = CookieJar()
        self._open = build_opener(HTTPCookieProcessor(self._cookies)).open
        if token:
            return
        # Gives the token that every change must carry, also where the interface is not built.
        with contextlib.suppress(HTTPError):
            self._open(f"{self.base}/").read()

    def call(self, method: str, path: str, body: Any = None, **query: Any) -> Any:
        """Any route below /api.

        Raises:
            Refused: the server said no; nothing was changed.
        """
        token = next((cookie.value or "" for cookie in self._cookies if cookie.name == "csrftoken"), "")
        address = f"{self.base}/api{path}" + (f"?{urlencode(query, doseq=True)}" if query else "")
        headers = {"Content-Type": "application/json", "X-CSRFToken": token, "Referer": self.base}
        if self.token:
            headers = {"Content-Type": "application/json", "Authorization": f"Bearer {self.token}"}
        data = None if body is None else json.dumps(body).encode()
        try:
            with self._open(Request(address, data=data, method=method, headers=headers)) as answer:
                return json.loads(answer.read() or b"null")
        except HTTPError as error:
            raise Refused(json.loads(error.read() or b"{}")) from error

    def sign_in(self, name: str, password: str) -> None:
        """Begin a session."""
        self.call("POST", "/sign-in", {"name": name, "password": password})

    def create_project(self, name: str) -> str:
        """An empty project; its id."""
        return str(self.call("POST", "/projects", {"name": name})["id"])

    def document(self, project: str) -> dict[str, Any]:
        """Everything entered: `version`, and `objects` by kind."""
        return dict(self.call("GET", f"/projects/{project}/document"))

    def commit(self, project: str, label: str, changes: list[dict[str, Any]]) -> int:
        """Apply a change set, all of it or nothing, on the document as it is now; the new version."""
        body = {"base_version": self.document(project)["version"], "label": label, "changes": changes}
        return int(self.call("POST", f"/projects/{project}/changes", body)["version"])

    def results(self, project: str) -> dict[str, Any]:
        """Everything worked out, by kind of record and id; SI."""
        return dict(self.call("GET", f"/projects/{project}/results")["changed"])

    def wait(self, task: dict[str, Any]) -> Any:
        """Follow a task to its result.

        Raises:
            Refused: it failed or was cancelled.
        """
        while task["state"] in ("waiting", "running"):
            time.sleep(0.3)
            task = self.call("GET", f"/tasks/{task['id']}")
        if task["state"] != "done":
            raise Refused(task["error"] or {"title": task["state"]})
        return self.call("GET", f"/tasks/{task['id']}/result")
