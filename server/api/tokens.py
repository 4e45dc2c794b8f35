"""Routes of tokens for programs, and the way in by one."""

from datetime import datetime
from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router, Schema
from ninja.security import HttpBearer, SessionAuth
from pydantic import Field

from accounts.models import AccessToken
from accounts.tokens import make_token, user_of
from api.schemas import Strict
from projects.errors import Refused


class ByToken(HttpBearer):
    """A program with a token in its Authorization header; it acts as the person whose token it is."""

    def authenticate(self, request: HttpRequest, token: str) -> Any:
        user = user_of(token)
        if user is not None:
            request.user = user
        return user


class TokenIn(Strict):
    name: Annotated[str, Field(min_length=1, max_length=80)]


class TokenOut(Schema):
    """A token without what it says."""

    id: int
    name: str
    created: datetime
    used: datetime | None


class NewToken(TokenOut):
    """A token with what it says: this once."""

    token: str


# By a person alone: a token makes no further ones.
router = Router(auth=SessionAuth(csrf=True))


@router.get("/tokens", response=list[TokenOut], operation_id="tokens")
def tokens(request: HttpRequest) -> Any:
    """Tokens of whoever is signed in."""
    return AccessToken.objects.filter(user=request.user)


@router.post("/tokens", response={201: NewToken}, operation_id="make_token")
def new_token(request: HttpRequest, body: TokenIn) -> Any:
    """A new token; what it says is in this answer and nowhere else."""
    row, text = make_token(request.user, body.name)
    return 201, {"id": row.pk, "name": row.name, "created": row.created, "used": None, "token": text}


@router.delete("/tokens/{token}", response={204: None}, operation_id="withdraw_token")
def withdraw(request: HttpRequest, token: int) -> Any:
    """Withdraw a token: programs that use it are let in no more."""
    gone, _ = AccessToken.objects.filter(user=request.user, pk=token).delete()
    if not gone:
        raise Refused("not_found", "There is no such token.")
    return 204, None
