"""Writes the pictures of docs/screenshots from the demo: `make pictures`. Every main view at 1280 by 800, as it is now."""

import os
import socket
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

import requests
from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
TARGET = ROOT / "docs" / "screenshots"
_ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--font-render-hinting=none",
    "--hide-scrollbars",
]

# Name, address below the project, and what is pressed there by its text.
VIEWS: tuple[tuple[str, str, tuple[str, ...]], ...] = (
    ("place", "place?page=days", ()),
    ("site", "place?page=site", ()),
    ("weather", "place?page=weather", ()),
    ("fabric", "fabric", ("Brick",)),
    ("glazing", "fabric?page=glazing/{glazing}", ()),
    ("schedules", "schedules", ()),
    ("uses", "uses", ()),
    ("rooms", "rooms?of=room/{room}", ()),
    ("plan", "rooms?page=plan&of=room/{room}", ()),
    ("loads", "loads?of=room/{room}", ()),
    ("air", "air", ()),
    ("balance", "air", ("Air balance",)),
    ("plant", "water", ("Plant",)),
    ("kit", "kit", ("AHU-1 workshops CC",)),
    ("year", "year", ()),
    ("hours", "year?view=courses&course=room/{room}/operative_c", ()),
    ("compare", "compare", ()),
    ("issue", "issue", ()),
)


def _served() -> tuple[subprocess.Popen[bytes], str]:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    environment = os.environ | {
        "PENDRUM_VAR": tempfile.mkdtemp(prefix="pendrum-pictures-"), "PENDRUM_DEMO": "1", "PENDRUM_BIND": f"127.0.0.1:{port}",
        "PYTHONPATH": f"{ROOT}:{ROOT / 'server'}",
    }  # fmt: skip
    for words in (("migrate", "-v0"), ("load_demo",)):
        subprocess.run([sys.executable, str(ROOT / "server" / "manage.py"), *words], env=environment, check=True)
    process = subprocess.Popen([sys.executable, "-m", "config.serve"], cwd=ROOT / "server", env=environment)
    base = f"http://127.0.0.1:{port}"
    while True:
        try:
            requests.get(base, timeout=5)
            return process, base
        except (requests.ConnectionError, requests.Timeout):  # not there yet, or busy with its first answer
            time.sleep(0.1)


def _ids(base: str) -> dict[str, str]:
    """Things of the demo that the addresses name."""
    session = requests.Session()
    session.get(base)
    project = session.get(f"{base}/api/session").json()["projects"][0]["id"]
    objects = session.get(f"{base}/api/projects/{project}/document").json()["objects"]
    room = next(row["id"] for row in objects["room"] if row["number"] == "0.03")
    return {"project": project, "room": room, **{kind: objects[kind][0]["id"] for kind in ("glazing", "shading")}}


def _prepared(base: str, project: str) -> None:
    """Two options and the years of them and of the base, so that Year and Compare have something to show."""
    session = requests.Session()
    session.get(base)
    root = f"{base}/api/projects"

    def send(method: str, path: str, body: Any = None) -> Any:
        headers = {"X-CSRFToken": session.cookies["csrftoken"], "Referer": base}
        answer = session.request(method, f"{root}/{path}", json=body, headers=headers)
        answer.raise_for_status()
        return answer.json()

    objects = session.get(f"{root}/{project}/document").json()["objects"]
    glass = [
        {"op": "set", "kind": "glazing", "id": row["id"], "fields": {"u_value": 0.7, "g_value": 0.35}}
        for row in objects["glazing"]
    ]
    thick = [row for row in objects["layer"] if 0.1 <= (row["thickness_m"] or 0.0) < 0.2]
    walls = [{"op": "set", "kind": "layer", "id": row["id"], "fields": {"thickness_m": 0.3}} for row in thick]
    made = [project]
    for name, capital, changes in (("Better glass", 18_000.0, glass), ("Thick walls", 31_000.0, walls)):
        option = send("POST", f"{project}/options", {"name": name})["id"]
        version = session.get(f"{root}/{option}/document").json()["version"]
        send("POST", f"{option}/changes", {"base_version": version, "label": name, "changes": changes})
        send("PATCH", f"{option}/option", {"capital": capital})
        made.append(option)
    for one in made:
        send("POST", f"{one}/year")
    while any(session.get(f"{root}/{one}/year").json()["summary"] is None for one in made):
        time.sleep(0.5)


def _settled(page: Page) -> None:
    page.locator("[role=status]", has_text="calculated in").wait_for(timeout=60_000)
    page.wait_for_timeout(1200)
    page.locator(".v-skeleton-loader").wait_for(state="detached", timeout=60_000)
    page.wait_for_timeout(500)


def main() -> None:
    """Take them all, or those named."""
    wanted = set(sys.argv[1:])
    process, base = _served()
    try:
        ids = _ids(base)
        _prepared(base, ids["project"])
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=_ARGUMENTS)
            for name, path, presses in VIEWS:
                if wanted and name not in wanted:
                    continue
                context = browser.new_context(
                    viewport={"width": 1280, "height": 800}, reduced_motion="reduce", locale="en-GB"
                )
                page = context.new_page()
                page.goto(f"{base}/{ids['project']}/{path.format(**ids)}")
                _settled(page)
                for text in presses:
                    page.get_by_text(text).first.click()
                    _settled(page)
                page.screenshot(path=TARGET / f"{name}.png")
                context.close()
                print(name, flush=True)
    finally:
        process.kill()


if __name__ == "__main__":
    main()
