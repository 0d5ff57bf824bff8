"""Account recovery by single-use codes, made at sign-up or on request, for whoever has no mail."""

from typing import Annotated

from apiflask import APIBlueprint
from flask import g, request
from pydantic import BaseModel, ConfigDict, Field

from reedmace.api.account_schemas import Password, SessionState
from reedmace.api.accounts import own_account, reject_weak_password, start_session
from reedmace.api.mail import tell
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, known_device

blueprint = APIBlueprint("recovery", __name__, url_prefix="/api", tag="Account")


class Recovery(BaseModel):
    """An email address, one of its codes, and the new password."""

    model_config = ConfigDict(extra="forbid")

    email: Annotated[str, Field(min_length=1, max_length=254)]
    code: Annotated[str, Field(min_length=1, max_length=40)]
    password: Password


class CodesAsked(BaseModel):
    """The password, for new codes."""

    model_config = ConfigDict(extra="forbid")

    password: Annotated[str, Field(min_length=1, max_length=200)]


class CodesLeft(BaseModel):
    """Number of unused codes."""

    left_count: int


class Codes(BaseModel):
    """New codes, shown only here."""

    recovery_codes: list[str]


@blueprint.post("/session/recover")
@blueprint.input(Recovery)
@blueprint.output(SessionState, status_code=201)
@blueprint.doc(responses={401: "No such code", 403: "CSRF token missing", 422: "Not usable", 429: "Paused"})
def recover(json_data: Recovery) -> SessionState:
    """Sign in with a recovery code and a new password. The code is used up; every other session ends."""
    reject_weak_password(json_data.password, json_data.email)
    now = g.now.replace(tzinfo=None)
    who = g.accounts.recover(
        json_data.email, json_data.code, json_data.password, request.remote_addr or "", now, known_device()
    )
    if who is None:
        raise ProblemError(401, "Not let in", "The address or the code is not right, or the code was used before.")
    tell(who.id, "A new password was chosen with a recovery code.")
    return start_session(who)


@blueprint.get("/account/recovery-codes")
@blueprint.output(CodesLeft)
@blueprint.doc(responses={401: "Not signed in"})
def codes_left() -> CodesLeft:
    """Number of unused recovery codes."""
    return CodesLeft(left_count=g.accounts.codes_left(keeper().id))


@blueprint.post("/account/recovery-codes")
@blueprint.input(CodesAsked)
@blueprint.output(Codes, status_code=201)
@blueprint.doc(
    responses={401: "Not signed in", 403: "CSRF token missing or wrong password", 422: "Not usable", 429: "Paused"}
)
def new_codes(json_data: CodesAsked) -> Codes:
    """Make new recovery codes; the old ones stop working."""
    own_account()
    now = g.now.replace(tzinfo=None)
    codes = g.accounts.codes_with(keeper().id, json_data.password, request.remote_addr or "", now)
    if codes is None:
        raise ProblemError(403, "No new codes", "The password is not right.")
    return Codes(recovery_codes=codes)
