"""The one HTML page; the browser does the rest."""

import json
from functools import lru_cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import ensure_csrf_cookie

from accounts.demo import sign_in_demo_engineer


@lru_cache(maxsize=1)
def _entry() -> tuple[str, tuple[str, ...]]:
    manifest = json.loads(settings.VITE_MANIFEST.read_text())
    entry = next(chunk for chunk in manifest.values() if chunk.get("isEntry"))
    return entry["file"], tuple(entry.get("css", []))


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """Serve the page with the built script's name; the API serves its visitor also where the interface is not built."""
    sign_in_demo_engineer(request)
    if not settings.VITE_MANIFEST.exists():
        # Not a 5xx: with one, Django keeps no session.
        return HttpResponse("The interface is not built yet: run make build.", status=404, content_type="text/plain")
    script, styles = _entry()
    return render(request, "page.html", {"script": script, "styles": styles})
