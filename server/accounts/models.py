"""Who may do what in a project and who is asked to, who is here, sign-ins that failed, and tokens for programs."""

from django.conf import settings
from django.db import models


class Member(models.Model):
    """Somebody beside the owner who may read a project or work in it; options go by their base."""

    READER, EDITOR = "reader", "editor"

    project = models.ForeignKey("projects.Project", on_delete=models.CASCADE, related_name="members")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=8)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["project", "user"], name="one_role_per_person")]

    def __str__(self) -> str:
        return f"{self.user}: {self.role}"


class Invitation(models.Model):
    """Somebody who is asked by mail to read a project or work in it. Of what the mail's link says only the digest is kept."""

    project = models.ForeignKey("projects.Project", on_delete=models.CASCADE, related_name="invitations")
    address = models.EmailField()
    role = models.CharField(max_length=8)
    invited_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    digest = models.CharField(max_length=64, unique=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["created"]
        constraints = [models.UniqueConstraint(fields=["project", "address"], name="asked_once")]

    def __str__(self) -> str:
        return f"{self.address}: {self.role}"


class Presence(models.Model):
    """A window in which somebody has a project open, and the stage that it shows."""

    window = models.CharField(max_length=24, primary_key=True)
    project = models.ForeignKey("projects.Project", on_delete=models.CASCADE, related_name="presences")
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    stage = models.CharField(max_length=24)
    seen = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.user} in {self.project_id} on {self.stage}"


class FailedTry(models.Model):
    """A sign-in with a wrong name or password."""

    name = models.CharField(max_length=150)
    address = models.CharField(max_length=45)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["name", "at"], name="tries_of_a_name")]

    def __str__(self) -> str:
        return f"{self.name} from {self.address}"


class AccessToken(models.Model):
    """What a program shows in place of a person's sign-in. The token itself is told once; only its digest is kept."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="tokens")
    name = models.CharField(max_length=80)
    digest = models.CharField(max_length=64, unique=True)
    created = models.DateTimeField(auto_now_add=True)
    used = models.DateTimeField(null=True)

    class Meta:
        ordering = ["created"]

    def __str__(self) -> str:
        return f"{self.name} of {self.user}"
