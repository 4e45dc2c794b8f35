"""HTML to PDF, in processes of their own.

`python -m exchange.report.press pages FILE …` makes a PDF beside each HTML file; `python -m exchange.report.press bind FOLDER` puts the
pieces of a folder together, with page numbers and bookmarks.
"""

import io
import resource
import sys
from pathlib import Path
from typing import Any

MEMORY_BYTES = 1_600_000_000  # of address space; libraries reserve about twice what they use
_NUMBER = """<style>%s @page { size: %spt %spt; margin: 0 } body { margin: 0; font: 8pt "Plex", sans-serif }
div { break-after: page; height: 100%%; position: relative } span { position: absolute; right: 14mm; top: %spt }</style>%s"""


def _html() -> Any:
    """The print engine; nothing is fetched but the fonts that come with the program."""
    from weasyprint import HTML
    from weasyprint.urls import URLFetcher

    class FontsOnly(URLFetcher):
        def fetch(self, url: str, headers: Any = None) -> Any:
            if not url.startswith("file://") or not url.endswith(".woff2"):
                raise ValueError(f"{url} is not fetched")
            return super().fetch(url, headers)

    return lambda text: HTML(string=text, url_fetcher=FontsOnly())


def pages(files: list[Path]) -> None:
    """A PDF beside each file; it is there only when it is whole."""
    html = _html()
    for file in files:
        html(file.read_text(encoding="utf-8")).write_pdf(file.with_suffix(".part"))
        file.with_suffix(".part").rename(file.with_suffix(".pdf"))


def bind(folder: Path) -> None:
    """One PDF of the pieces, in the order of their names."""
    from pypdf import PdfReader, PdfWriter

    writer = PdfWriter()
    for file in sorted(folder.glob("piece-*.pdf")):
        writer.append(file, import_outline=True)
    count = len(writer.pages)
    box = writer.pages[0].mediabox
    fonts = (folder / "fonts.css").read_text(encoding="utf-8")
    told = "".join(f"<div><span>{number} / {count}</span></div>" for number in range(1, count + 1))
    sheet = _NUMBER % (fonts, box.width, box.height, float(box.height) - 36.0, told)
    numbers = PdfReader(io.BytesIO(_html()(sheet).write_pdf()))
    for page, number in zip(writer.pages, numbers.pages, strict=False):
        page.merge_page(number)
        page.compress_content_streams()
    writer.add_metadata({"/Title": (folder / "title.txt").read_text(encoding="utf-8"), "/Producer": "Pendrum"})
    writer.compress_identical_objects()
    writer.write(folder / "report.pdf")


if __name__ == "__main__":
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    if sys.argv[1] == "pages":
        pages([Path(name) for name in sys.argv[2:]])
    else:
        bind(Path(sys.argv[2]))
