"""What the process that reads files has loaded before the first file comes."""

import contextlib
import os

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

import ezdxf  # noqa: E402, F401
import openpyxl  # noqa: E402, F401

from exchange import drawings  # noqa: E402, F401
from exchange.rooms import files  # noqa: E402, F401

with contextlib.suppress(ImportError):
    import ifcopenshell  # noqa: F401
