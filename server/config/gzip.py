"""Compression of answers for those who ask from another machine."""

from django.http import HttpRequest, HttpResponse
from django.middleware.gzip import GZipMiddleware

_HERE = ("127.0.0.1", "::1")


class GZipFarAway(GZipMiddleware):
    """The framework's compression, left out for this machine: a proxy compresses itself, and a browser here need not wait."""

    def process_response(self, request: HttpRequest, response: HttpResponse) -> HttpResponse:
        """Compress what goes further than this machine."""
        return response if request.META.get("REMOTE_ADDR") in _HERE else super().process_response(request, response)
