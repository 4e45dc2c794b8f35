"""The content policy sent with every answer."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

# Scripts only from this server, none inline. Styles may be inline: the component library writes its theme so.
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; "
    "img-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)


class ContentPolicy:
    """Middleware that adds the policy."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        response.headers["Content-Security-Policy"] = POLICY
        response.headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=()"
        return response
