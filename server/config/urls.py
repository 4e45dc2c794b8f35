"""Addresses: the API, the administrator's pages, and the one page for everything else."""

from django.contrib import admin
from django.urls import path, re_path

from api.problems import nowhere, outside, refused_request
from api.routes import api
from config.health import alive, ready
from config.page import page

urlpatterns = [
    path("api/alive", alive),
    path("api/ready", ready),
    path("api/", api.urls),
    re_path(r"^api(/.*)?$", nowhere),
    path("admin/", admin.site.urls),
    re_path(r"^(?!api/|static/|admin/).*$", page),
]
handler400, handler404, handler500 = refused_request, nowhere, outside
