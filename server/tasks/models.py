"""The table of tasks."""

from django.conf import settings
from django.db import models


class Task(models.Model):
    """A piece of long work, from its asking to its result."""

    WAITING, RUNNING, DONE, FAILED, CANCELLED = "waiting", "running", "done", "failed", "cancelled"
    OPEN = (WAITING, RUNNING)
    POINT = "year_point"  # one year of a batch: told with its batch (tasks/batches.py), not among the other tasks

    id = models.CharField(primary_key=True, max_length=40)
    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    project = models.ForeignKey("projects.Project", null=True, on_delete=models.CASCADE, related_name="tasks")
    kind = models.CharField(max_length=40)
    title = models.CharField(max_length=200)
    state = models.CharField(max_length=10, default=WAITING)
    # Share that is done, 0 to 1, and what is being done.
    progress = models.FloatField(default=0.0)
    doing = models.CharField(max_length=200, default="")
    # When a worker last said that it is at it: one that is silent for long is gone (tasks/work.py).
    beat = models.DateTimeField(null=True)
    cancel_asked = models.BooleanField(default=False)
    created = models.DateTimeField(auto_now_add=True)
    ended = models.DateTimeField(null=True)
    inputs = models.JSONField(default=dict)
    result = models.JSONField(null=True)
    # A refusal as an answer would carry it: code, title, faults.
    error = models.JSONField(null=True)

    class Meta:
        ordering = ["-created"]
        indexes = [models.Index(fields=["project", "-created"], name="tasks_of_a_project")]

    def __str__(self) -> str:
        return f"{self.title}: {self.state}"
