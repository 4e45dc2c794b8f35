"""From a key on a definition page to the building's new peaks on the screen, in Chromium:
`.venv/bin/python bench/definitions.py` beside a running demo, after `.venv/bin/python server/manage.py load_trial 500`.

The project opened is the newest; the peaks in the head of each page are what is watched.
"""

import sys
from collections.abc import Callable

from playwright.sync_api import Page, sync_playwright

TURNS = 9
# Done when the text of the peaks has changed and the change is painted.
_WATCH = """() => {
  const peaks = document.querySelector("[aria-label='Peaks of the building']");
  const before = peaks.innerText;
  window.began = performance.now();
  window.seen = new Promise((done, fail) => {
    const watcher = new MutationObserver(() => {
      if (peaks.innerText === before) return;
      watcher.disconnect();
      requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - window.began)));
    });
    watcher.observe(peaks, { subtree: true, childList: true, characterData: true });
    setTimeout(() => fail("no new peaks"), 20000);
  });
}"""


def _measure(page: Page, what: str, edit: Callable[[int], None]) -> None:
    times = []
    for turn in range(TURNS):
        page.wait_for_timeout(900)  # the plant of the edit before has followed by then
        page.evaluate(_WATCH)
        edit(turn)
        times.append(page.evaluate("window.seen"))
    times.sort()
    print(f"{what}: median {times[len(times) // 2]:.0f} ms, worst {times[-1]:.0f} ms")


def _stage(page: Page, name: str, item: str = "") -> None:
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=name).click()
    page.get_by_role("heading", level=1).first.wait_for()
    if item:
        page.get_by_role("navigation", name=name).get_by_role("button", name=item).first.click()
    page.wait_for_timeout(1500)


def _field(page: Page, label: str, value: Callable[[int], str]) -> Callable[[int], None]:
    def edit(turn: int) -> None:
        field = page.get_by_label(label, exact=True).first
        field.fill(value(turn))
        page.evaluate("window.began = performance.now()")
        field.press("Enter")

    return edit


def _ribbon(page: Page) -> Callable[[int], None]:
    def edit(turn: int) -> None:
        ribbon = page.get_by_role("application", name="Ribbon of hours")
        ribbon.focus()
        page.keyboard.press("Home")
        for _ in range(14):
            page.keyboard.press("ArrowRight")
        page.keyboard.press("Shift+ArrowRight")
        page.keyboard.type(str(30 + 7 * turn))
        page.evaluate("window.began = performance.now()")
        page.keyboard.press("Enter")

    return edit


def _thickness(page: Page) -> Callable[[int], None]:
    def edit(turn: int) -> None:
        rows = page.get_by_role("grid", name="Layers", exact=True).locator("[role=rowgroup] [role=row]")
        rows.nth(1).locator("[data-column=thickness_m]").click()
        page.keyboard.type(str(90 + 15 * turn))
        page.evaluate("window.began = performance.now()")
        page.keyboard.press("Enter")

    return edit


def main(address: str) -> None:
    """Print how long edits of each definition page take until the new peaks are painted [ms]."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_role("grid", name="Loads", exact=True).wait_for()
        newest = page.evaluate("fetch('/api/session').then(a => a.json()).then(s => s.projects.at(-1).id)")
        page.goto(f"{address}{newest}/uses")
        page.get_by_role("heading", level=1).first.wait_for()
        page.wait_for_timeout(2500)
        _measure(page, "use, lights", _field(page, "Lights", lambda turn: str(8.5 + turn / 2)))
        _stage(page, "Schedules", "Working hours")
        _measure(page, "schedule, two hours", _ribbon(page))
        _stage(page, "Fabric", "wall")
        _measure(page, "assembly, thickness of a layer", _thickness(page))
        page.goto(f"{address}{newest}/place")
        page.get_by_role("button", name="Design days", exact=True).click()
        page.wait_for_timeout(2500)
        _measure(page, "place, winter dry-bulb", _field(page, "Winter dry-bulb", lambda turn: str(-4.3 - turn / 2)))
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8734/")
