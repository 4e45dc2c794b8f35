"""From a key to the painted cell at 600 rooms, and a plan with 100 rooms on one level, in Chromium:
`.venv/bin/python bench/paint.py` beside a running demo.

Load the building first: `.venv/bin/python server/manage.py load_trial 600`. The plan is drawn in a project of its own.
"""

import re
import sys
from collections.abc import Callable

from playwright.sync_api import Page, sync_playwright

_MEASURE = """() => new Promise(done => {
  const begin = performance.now();
  requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - begin)));
})"""


# 10 × 10 rooms of 5 × 4 m, drawn on the one level of a new project.
_DRAW = """async () => {
  const token = document.cookie.match(/csrftoken=([^;]*)/)?.[1] ?? "";
  const send = async (path, body) => (await fetch("/api" + path, {
    method: "POST", body: JSON.stringify(body), headers: { "Content-Type": "application/json", "X-CSRFToken": token },
  })).json();
  const project = (await send("/projects", { name: "Plan of 100 rooms" })).id;
  const found = (await (await fetch(`/api/projects/${project}/document`)).json());
  const level = found.objects.level[0].id;
  const changes = [];
  for (let i = 0; i < 100; i++) {
    const x = (i % 10) * 5, y = Math.floor(i / 10) * 4;
    changes.push({ op: "create", kind: "room", id: `plan${project}${i}`, fields: {
      number: String(100 + i), name: "Room", level, outline_m: [[x, y], [x + 5, y], [x + 5, y + 4], [x, y + 4]] } });
  }
  await send(`/projects/${project}/changes`, { base_version: found.version, label: "drawn", changes });
  return project;
}"""


def _plan(page: Page, address: str) -> None:
    """Zoom, choose and drag a shared wall on a plan of 100 rooms."""
    project = page.evaluate(_DRAW)
    page.goto(f"{address}{project}/rooms")
    page.get_by_role("button", name="Plan", exact=True).click()
    plan = page.get_by_label(re.compile("^Plan"), exact=False).first
    plan.wait_for()
    page.wait_for_timeout(1500)
    box = plan.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2

    def timed(what: str, turn: Callable[[int], None]) -> None:
        times = []
        for index in range(8):
            page.evaluate("window.began = performance.now()")
            turn(index)
            page.evaluate(_MEASURE)
            times.append(page.evaluate("performance.now() - window.began"))
        print(f"plan, {what}: median {sorted(times)[len(times) // 2]:.0f} ms, worst {max(times):.0f} ms")

    page.mouse.move(x, y)
    timed("zoom", lambda index: page.mouse.wheel(0, 40 if index % 2 else -40))
    timed("choose a room", lambda index: page.mouse.click(x + 45 * (index % 3 - 1), y))
    page.mouse.down()
    timed("drag", lambda index: page.mouse.move(x + 3 * index, y + 2 * index))
    page.mouse.up()


def main(address: str) -> None:
    """Print how long moves, typing and scrolling take until they are painted [ms]."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_role("grid", name="Loads", exact=True).wait_for()
        page.get_by_role("navigation", name="Stages").get_by_role("link", name="Rooms").click()
        grid = page.get_by_role("grid", name="Rooms", exact=True)
        grid.locator("[data-cell='2/3']").click()
        for what, key in (
            ("arrow", "ArrowDown"),
            ("page down", "PageDown"),
            ("range", "Shift+PageDown"),
            ("typing", "4"),
        ):
            times = []
            for _ in range(8):
                page.evaluate("window.began = performance.now()")
                page.keyboard.press(key)
                page.evaluate(_MEASURE)
                times.append(page.evaluate("performance.now() - window.began"))
                if what == "typing":
                    page.keyboard.press("Escape")
            print(f"{what}: median {sorted(times)[len(times) // 2]:.0f} ms, worst {max(times):.0f} ms")
        _plan(page, address)
        browser.close()


if __name__ == "__main__":
    main((sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8734").rstrip("/") + "/")
