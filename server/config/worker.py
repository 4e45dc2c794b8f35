"""A worker: `python -m config.worker`. It does the tasks of the queue, one at a time; the web server starts one or more beside
itself. On several machines, with a Redis queue, each runs as many of these as it likes.
"""

import logging
import os
import threading
import time

import django

SERVER = "PENDRUM_SERVER_PROCESS"


def main() -> None:
    """Work until it is ended, or until the server that started it is gone."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
    django.setup()
    from tasks.queue import huey

    logging.getLogger("huey").setLevel(logging.WARNING)
    # Told by whoever started it: the parent may be gone before this line, and then another process is in its place.
    if parent := os.environ.get(SERVER):
        threading.Thread(target=_end_with, args=(int(parent),), daemon=True).start()
    huey.create_consumer(
        workers=1, worker_type="thread", initial_delay=0.05, backoff=1.1, max_delay=0.25, periodic=False
    ).run()


def _end_with(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(1.0)
    os._exit(0)


if __name__ == "__main__":
    main()
