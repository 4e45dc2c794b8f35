"""The web server: `python -m config.serve`. One process, so that results stay in memory; several threads answer.

A request is read as a whole, header and body, before a thread gets it: whoever sends slowly holds a socket, never a thread, and
one that falls silent is let go.
"""

import logging
import os
import subprocess
import sys
import threading
import time

from django.conf import settings
from waitress import create_server

from config.memory import calm_memory
from config.worker import SERVER
from config.wsgi import application

_log = logging.getLogger("pendrum.server")
THREADS = 8
SILENT_S = 30  # a connection on which nothing moves for so long is closed
LARGEST_BODY_BYTES = 110_000_000
MOST_CONNECTIONS = 500


def main() -> None:
    """Serve until it is ended."""
    host, _, port = os.environ.get("PENDRUM_BIND", "127.0.0.1:8734").rpartition(":")
    calm_memory()
    # A busy queue is no event; that every thread is at work says the request log.
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    proxy = os.environ.get("PENDRUM_PROXY")  # address of the proxy whose word on scheme and sender counts
    behind = {"trusted_proxy": proxy, "trusted_proxy_headers": "x-forwarded-proto x-forwarded-for x-forwarded-host"}
    server = create_server(
        application,
        host=host or "127.0.0.1",
        port=int(port),
        threads=THREADS,
        channel_timeout=SILENT_S,
        cleanup_interval=5,
        max_request_body_size=LARGEST_BODY_BYTES,
        max_request_header_size=32_768,
        connection_limit=MOST_CONNECTIONS,
        ident=None,
        clear_untrusted_proxy_headers=True,
        **(behind if proxy else {}),
    )
    if settings.DEMO_SIGN_IN:
        address = f"http://{host or '127.0.0.1'}:{port}/"
        threading.Thread(target=_tell_demo, args=(address,), daemon=True).start()
    else:
        threading.Thread(target=_warm_up, daemon=True).start()
    for _ in range(int(os.environ.get("PENDRUM_WORKER", "1"))):  # none: workers run elsewhere
        threading.Thread(target=_keep_worker, daemon=True).start()
    server.run()


def _keep_worker() -> None:
    """A worker for long work beside the server, started again where it ends; it ends itself when the server is gone."""
    while True:
        began = time.monotonic()
        own = os.environ | {SERVER: str(os.getpid())}
        subprocess.run([sys.executable, "-m", "config.worker"], check=False, env=own)
        _log.warning("the worker ended; it is started again")
        # One that cannot start is not tried in a tight loop.
        time.sleep(1.0 if time.monotonic() - began > 10.0 else 10.0)


def _warm_up() -> None:
    """Import the slow libraries beside the first request, not in it."""
    import fluids.friction  # noqa: F401
    import pvlib.solarposition  # noqa: F401


def _tell_demo(address: str) -> None:
    """Whoever starts the demo opens it at once: its results are there before its address is told. The server answers meanwhile."""
    try:
        _warm_up()
        _calculate_demo()
    except Exception:  # its results are then worked out, or their fault told, when it is opened
        _log.exception("the demo was not calculated before its address was told")
    print(f"Pendrum with the demo: {address}  (Ctrl+C ends it)", flush=True)


def _calculate_demo() -> None:
    """The demo's results into memory; a new installation compiles what is slow on the way."""
    from accounts.demo import demo_engineer
    from calculations.service import whole
    from projects.document import load_document
    from projects.models import Project

    project = Project.objects.filter(owner=demo_engineer(), state="open", base=None).order_by("-created").first()
    if project is not None:
        whole(load_document(project))


if __name__ == "__main__":
    main()
