"""People and what they may do, on the administrator's pages."""

from typing import Any

from django.contrib import admin
from django.contrib.auth.admin import UserAdmin
from django.contrib.auth.models import Group, User
from django.http import HttpRequest

from accounts.models import Invitation, Member
from projects.models import Project

admin.site.unregister(Group)
admin.site.unregister(User)


@admin.register(User)
class People(UserAdmin):
    """Accounts: names, addresses, passwords, whether they may come in."""

    list_display = ("username", "email", "is_active", "is_staff", "last_login")
    fieldsets = (
        (None, {"fields": ("username", "password")}),
        ("Person", {"fields": ("first_name", "last_name", "email")}),
        ("May", {"fields": ("is_active", "is_staff", "is_superuser")}),
    )
    add_fieldsets = ((None, {"fields": ("username", "email", "usable_password", "password1", "password2")}),)


class Members(admin.TabularInline):
    """Who works in a project beside its owner."""

    model = Member
    extra = 0


@admin.register(Project)
class Projects(admin.ModelAdmin):
    """Projects: whose they are and who works in them; what stands in them is edited in the program alone."""

    list_display = ("name", "owner", "state", "version", "created")
    list_filter = ("state",)
    search_fields = ("name", "owner__username")
    fields = ("name", "owner", "state", "version")
    readonly_fields = ("name", "version")
    inlines = (Members,)

    def get_queryset(self, request: HttpRequest) -> Any:
        """Options go by their base."""
        return super().get_queryset(request).filter(base=None)

    def has_add_permission(self, request: HttpRequest) -> bool:
        """They are begun in the program."""
        return False

    def has_delete_permission(self, request: HttpRequest, obj: Any = None) -> bool:
        """They are put aside by their state, with everything in them."""
        return False


@admin.register(Invitation)
class Invitations(admin.ModelAdmin):
    """Who is asked into what; a link cannot be made here, only withdrawn."""

    list_display = ("address", "project", "role", "invited_by", "created")

    def has_add_permission(self, request: HttpRequest) -> bool:
        """The owner of a project asks."""
        return False

    def has_change_permission(self, request: HttpRequest, obj: Any = None) -> bool:
        """Withdrawn and asked anew."""
        return False
