"""Whether the server can work: asked by proxies and monitors, without signing in, and telling nothing of the projects."""

from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, JsonResponse
from django.views.decorators.http import require_GET


@require_GET
def alive(request: HttpRequest) -> JsonResponse:
    """The process answers."""
    return JsonResponse({"status": "ok"})


@require_GET
def ready(request: HttpRequest) -> JsonResponse:
    """The database answers and its tables are those of this version; else 503 with what is missing."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
        executor = MigrationExecutor(connection)
        waiting = executor.migration_plan(executor.loader.graph.leaf_nodes())
    except DatabaseError:
        return JsonResponse({"status": "no database"}, status=503)
    if waiting:
        return JsonResponse({"status": "tables of another version", "migrations": len(waiting)}, status=503)
    return JsonResponse({"status": "ok"})
