"""The product's own server for trials, and a browser without a screen that talks to it."""

import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

import requests

ROOT = Path(__file__).resolve().parent.parent
SLOWEST_S = 5.0


class Server:
    """The product's own server on a free port, with a database of its own."""

    def __init__(self, beside: "Server | None" = None, data: tuple[str, ...] = ("load_demo",)) -> None:
        """`beside` shares the database of another one; else one is made with what a command loads."""
        self.var = beside.var if beside else tempfile.mkdtemp(prefix="pendrum-attack-")
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.log = Path(self.var) / "log"
        self.environment = os.environ | {
            "PENDRUM_VAR": self.var, "PENDRUM_DEMO": "1", "PENDRUM_BIND": f"127.0.0.1:{self.port}", "PENDRUM_LOG": str(self.log),
            "PYTHONPATH": f"{ROOT}:{ROOT / 'server'}",
        }  # fmt: skip
        if beside is None:
            self._manage("migrate", "-v0")
            self._manage(*data)
        self.process: subprocess.Popen[bytes] | None = None
        self.start()

    def _manage(self, *words: str) -> None:
        subprocess.run([sys.executable, str(ROOT / "server" / "manage.py"), *words], env=self.environment, check=True,
                       stdout=subprocess.DEVNULL)  # fmt: skip

    def start(self) -> float:
        """Start it and wait for its first answer; how long that took [s]."""
        begin = time.monotonic()
        self.process = subprocess.Popen(
            [sys.executable, "-m", "config.serve"], cwd=ROOT / "server", env=self.environment
        )
        while True:
            try:
                requests.get(self.base + "/api/session", timeout=5)
                return time.monotonic() - begin
            except (requests.ConnectionError, requests.Timeout):
                time.sleep(0.05)

    def kill(self) -> None:
        """End it at once."""
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    @property
    def base(self) -> str:
        """Its address."""
        return f"http://127.0.0.1:{self.port}"


class Client:
    """A signed-in browser without a screen; keeps what fell."""

    def __init__(self, server: Server, patience: float = 1.0) -> None:
        """`patience` multiplies what an answer may take, on a machine that has other work."""
        self.server, self.session, self.patience = server, requests.Session(), patience
        self.session.get(server.base + "/", timeout=30)
        self.session.headers["X-CSRFToken"] = self.session.cookies.get("csrftoken", "")
        self.fallen: list[str] = []
        self.slowest = 0.0
        self.count = 0

    def send(self, method: str, path: str, limit: float = SLOWEST_S, **more: Any) -> requests.Response | None:
        """One request; what must not be is noted."""
        begin = time.monotonic()
        what = f"{method} {path}"
        self.count += 1
        try:
            answer = self.session.request(method, self.server.base + path, timeout=60 * self.patience, **more)
        except requests.RequestException as error:
            self.fallen.append(f"{what}: {type(error).__name__} {more}"[:400])
            return None
        took = time.monotonic() - begin
        self.slowest = max(self.slowest, took)
        if took > limit * self.patience:
            self.fallen.append(f"{what}: {took:.1f} s {more}"[:400])
        if answer.status_code >= 500 and answer.status_code != 503:
            self.fallen.append(f"{what}: {answer.status_code} {answer.text[:200]} {str(more)[:300]}")
        if answer.status_code >= 400 and path.startswith("/api/"):
            try:
                answer.json()
            except ValueError:
                self.fallen.append(f"{what}: {answer.status_code} is no JSON: {answer.text[:80]!r}")
        return answer

    def json(self, path: str) -> Any:
        """What a path answers, as plain values."""
        answer = self.send("GET", path, limit=30)
        assert answer is not None
        return answer.json()
