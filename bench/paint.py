"""From a key to the painted cell, in Chromium, at 600 rooms: `.venv/bin/python bench/paint.py` beside a running demo.

Load the building first: `.venv/bin/python server/manage.py load_trial 600`.
"""

import sys

from playwright.sync_api import sync_playwright

_MEASURE = """() => new Promise(done => {
  const begin = performance.now();
  requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - begin)));
})"""


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
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8734/")
