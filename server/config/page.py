"""The one HTML page; the browser does the rest."""

import json
from functools import lru_cache
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import ensure_csrf_cookie

from accounts.demo import sign_in_demo_engineer


def entry_of(manifest: dict[str, Any]) -> tuple[str, tuple[str, ...]]:
    """Script of the page, and the style sheets of it and of every part that it imports: its own first, because it says which layer lies above which."""
    name, entry = next((name, chunk) for name, chunk in manifest.items() if chunk.get("isEntry"))
    styles: dict[str, None] = {}
    seen: set[str] = set()

    def collect(part: str) -> None:
        if part in seen:
            return
        seen.add(part)
        styles.update(dict.fromkeys(manifest[part].get("css", [])))
        for imported in manifest[part].get("imports", []):
            collect(imported)

    collect(name)
    return entry["file"], tuple(styles)


@lru_cache(maxsize=1)
def _entry() -> tuple[str, tuple[str, ...]]:
    return entry_of(json.loads(settings.VITE_MANIFEST.read_text()))


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Serve the page with the built script's name; the API serves its visitor also where the interface is not built."""
    sign_in_demo_engineer(request)
    if not settings.VITE_MANIFEST.exists():
        # Not a 5xx: with one, Django keeps no session.
        return HttpResponse("The interface is not built yet: run make build.", status=404, content_type="text/plain")
    script, styles = _entry()
    return render(request, "page.html", {"script": script, "styles": styles})
