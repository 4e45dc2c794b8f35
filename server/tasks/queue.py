"""The queue: a file of its own beside the database, or a Redis server for workers on several machines."""

from typing import Any

from django.conf import settings
from huey import Huey, MemoryHuey, RedisHuey, SqliteHuey


def _made() -> Huey:
    if settings.QUEUE == "immediate":
        # Tests: the work is done where it is asked for.
        return MemoryHuey("pendrum", immediate=True)
    if settings.QUEUE.startswith(("redis://", "rediss://")):
        return RedisHuey("pendrum", url=settings.QUEUE)
    return SqliteHuey("pendrum", filename=settings.QUEUE, fsync=False)


huey = _made()


@huey.task()
def run_task(identity: str) -> None:
    """Do a task of the table."""
    from tasks.work import work_on

    work_on(identity)


def enqueue(identity: str) -> Any:
    """Let a worker do a task."""
    return run_task(identity)
