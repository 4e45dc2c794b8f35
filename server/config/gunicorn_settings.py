"""How the demo is served: one process, so that its results stay in memory, several threads for waiting requests."""

import os
import threading

from config.memory import calm_memory

bind = os.environ.get("PENDRUM_BIND", "127.0.0.1:8734")
workers = 1
threads = 4
worker_class = "gthread"
timeout = 120
control_socket_disable = True


def post_worker_init(worker: object) -> None:
    """Import the slow libraries beside the first request, not in it."""
    calm_memory()
    threading.Thread(target=_warm_up, daemon=True).start()


def _warm_up() -> None:
    import fluids.friction  # noqa: F401
    import pvlib.solarposition  # noqa: F401
