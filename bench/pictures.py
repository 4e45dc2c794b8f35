"""Writes the pictures of docs/screenshots from the demo: `make pictures`. Every main view at 1280 by 800, as it is now."""

import os
import socket
import subprocess
import sys
import tempfile
import time
from pathlib import Path

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
    ("shading", "fabric?page=shading/{shading}", ()),
    ("envelope", "fabric?page=envelope/", ()),
    ("schedules", "schedules", ()),
    ("uses", "uses", ()),
    ("rooms", "rooms?of=room/{room}", ()),
    ("plan", "rooms?page=plan&of=room/{room}", ()),
    ("shared", "rooms?page=shared", ()),
    ("loads", "loads?of=room/{room}", ()),
    ("air", "air", ()),
    ("ducts", "air", ("Ducts",)),
    ("water", "water", ()),
    ("kit", "kit", ()),
    ("proof", "proof", ()),
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
        except requests.ConnectionError:
            time.sleep(0.1)


def _ids(base: str) -> dict[str, str]:
    """Things of the demo that the addresses name."""
    session = requests.Session()
    session.get(base)
    project = session.get(f"{base}/api/session").json()["projects"][0]["id"]
    objects = session.get(f"{base}/api/projects/{project}/document").json()["objects"]
    room = next(row["id"] for row in objects["room"] if row["number"] == "0.03")
    return {"project": project, "room": room, **{kind: objects[kind][0]["id"] for kind in ("glazing", "shading")}}


def _settled(page: Page) -> None:
    page.locator("[role=status]", has_text="worked out").wait_for(timeout=60_000)
    page.wait_for_timeout(1200)


def main() -> None:
    """Take them all, or those named."""
    wanted = set(sys.argv[1:])
    process, base = _served()
    try:
        ids = _ids(base)
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
