"""The administrator's pages: people, projects, invitations, and the mails that were sent into a folder.

They are Django's own, for accounts that are staff. One signs in on the program's page, where wrong tries are counted.
"""

from email import message_from_bytes, policy
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.admin import AdminSite
from django.contrib.admin.apps import AdminConfig
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.template.response import TemplateResponse
from django.urls import URLPattern, URLResolver, path

_SHOWN = 100


class Installed(AdminConfig):
    """Django's pages with this site in place of the default one."""

    default_site = "config.administration.Administration"


class Administration(AdminSite):
    """Pages for staff."""

    site_header = site_title = "Pendrum: administration"
    index_title = "People and projects"
    index_template = "administration.html"

    def login(self, request: HttpRequest, extra_context: dict[str, Any] | None = None) -> HttpResponse:
        """Signing in is the program's; who is signed in and is no staff goes there too."""
        return HttpResponseRedirect("/")

    def get_urls(self) -> list[URLPattern | URLResolver]:
        """The outbox beside Django's own."""
        return [path("outbox/", self.admin_view(self.outbox), name="outbox"), *super().get_urls()]

    def outbox(self, request: HttpRequest) -> HttpResponse:
        """Mails in the folder, the newest first."""
        context = self.each_context(request) | {"title": "Outbox", "mails": mails(Path(settings.OUTBOX))}
        return TemplateResponse(request, "outbox.html", context)


def mails(folder: Path) -> list[dict[str, str]]:
    """What stands in the folder of mails that are not sent over a server."""
    found = []
    for file in sorted(folder.glob("*.log"), reverse=True)[:_SHOWN] if folder.exists() else []:
        for raw in file.read_bytes().split(b"-" * 79 + b"\n"):
            if raw.strip():
                mail = message_from_bytes(raw, policy=policy.default)
                body = mail.get_body()
                text = body.get_content() if body is not None else ""
                found.append({key: str(mail[key] or "") for key in ("to", "subject", "date")} | {"text": text})
    return found
