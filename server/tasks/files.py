"""Files that tasks work on and leave behind, each in a folder of its task."""

import pickle
import shutil
from pathlib import Path
from typing import Any

import numpy as np
from django.conf import settings


def folder(identity: str) -> Path:
    """The folder of a task; made where it is not there."""
    path: Path = settings.VAR / "tasks" / identity
    path.mkdir(parents=True, exist_ok=True)
    return path


def put_upload(identity: str, data: bytes) -> None:
    """Keep what was sent."""
    (folder(identity) / "upload").write_bytes(data)


def upload(identity: str) -> bytes:
    """What was sent."""
    return (folder(identity) / "upload").read_bytes()


def put_found(identity: str, found: Any) -> None:
    """Keep what a reader made of a file, for the step that takes it. Only the server's own writing is ever read again."""
    (folder(identity) / "found").write_bytes(pickle.dumps(found))


def found(identity: str) -> Any:
    """What a reader made of the file."""
    return pickle.loads((folder(identity) / "found").read_bytes())


def put_arrays(identity: str, arrays: dict[str, Any]) -> None:
    """Keep arrays by name, so that one of them can be read alone."""
    np.savez(folder(identity) / "arrays.npz", **arrays)


def arrays(identity: str) -> Any:
    """Kept arrays, each read when it is asked for; to be closed after use.

    Raises:
        FileNotFoundError: none are kept, or they were tidied away.
    """
    return np.load(settings.VAR / "tasks" / identity / "arrays.npz")


def forget(identity: str) -> None:
    """Delete a task's files."""
    shutil.rmtree(settings.VAR / "tasks" / identity, ignore_errors=True)
