"""Tokens that only read: made and revoked by the keeper, used by programs."""

from datetime import timedelta
from typing import Annotated

from apiflask import APIBlueprint
from flask import Response, g, request
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.files import streamed_zip
from reedmace.api.openapi_responses import file_of
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.formats.account_tables import Format, TankRecord, write_account_tables
from reedmace.store import NoSuchReadToken, ReadToken, ReadTokens, Tanks, read_token_of

blueprint = APIBlueprint("read-tokens", __name__, url_prefix="/api", tag="Files")

LONGEST_DAYS, USUAL_DAYS = 400, 90
OWN = {401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"}


class ReadTokenIn(BaseModel):
    """A token to be made."""

    model_config = ConfigDict(extra="forbid")
    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S", description="What will read with it")]
    tank_id: Annotated[int, Field(ge=1, le=2**53, description="The one tank it reads; null for all")] | None = None
    days: Annotated[int, Field(ge=1, le=LONGEST_DAYS, description="For how long it is good")] = USUAL_DAYS


class ReadTokenOut(BaseModel):
    """A token, without its secret."""

    id: int = Field(ge=1, le=2**53)
    name: str
    tank: str | None = Field(description="Name of the one tank it reads; null for all")
    made_at: AwareDatetime
    until: AwareDatetime
    over: bool


class ReadTokenList(BaseModel):
    """Every token of the account, oldest first."""

    tokens: list[ReadTokenOut]


class ReadTokenMade(ReadTokenList):
    """The tokens, and the secret of the new one, shown only here."""

    token: str


class TablesAsked(BaseModel):
    """How tables are written."""

    model_config = ConfigDict(extra="forbid")
    form: Annotated[Format, Field(alias="as", description="Parquet for a program, CSV for anything")] = "parquet"


def _mine() -> ReadTokens:
    return ReadTokens(g.database, keeper().id)


def _listed() -> list[ReadTokenOut]:
    names = {t.id: t.name for t in tanks().all()}
    return [
        ReadTokenOut(
            id=t.id,
            name=t.name,
            tank=None if t.tank_id is None else names.get(t.tank_id, "a tank put away"),
            made_at=t.made_at,
            until=t.until,
            over=t.until <= g.now,
        )
        for t in _mine().all()
    ]


@blueprint.get("/account/tokens")
@blueprint.output(ReadTokenList)
@blueprint.doc(responses={401: "Not signed in"})
def list_tokens() -> ReadTokenList:
    """Your reading tokens."""
    return ReadTokenList(tokens=_listed())


@blueprint.post("/account/tokens")
@blueprint.input(ReadTokenIn)
@blueprint.output(ReadTokenMade, status_code=201)
@blueprint.doc(responses={**OWN, 404: "No such tank", 409: "Too many tokens"})
def make_token(json_data: ReadTokenIn) -> ReadTokenMade:
    """A new token that reads all tanks, or one, until its end; shown only here."""
    until = g.now + timedelta(days=json_data.days)
    _, secret = _mine().make(json_data.name.strip(), json_data.tank_id, g.now, until)
    return ReadTokenMade(tokens=_listed(), token=secret)


@blueprint.delete("/account/tokens/<int:token_id>")
@blueprint.output(ReadTokenList)
@blueprint.doc(responses={**OWN, 404: "No such token"})
def revoke_token(token_id: int) -> ReadTokenList:
    """Revoke a token at once."""
    try:
        _mine().remove(token_id)
    except NoSuchReadToken as error:
        raise ProblemError(404, "No such token", "It was revoked already, or is none of yours.") from error
    return ReadTokenList(tokens=_listed())


def _bearer() -> ReadToken:
    """The token a program sent. Raises a 401 problem."""
    scheme, _, secret = request.headers.get("Authorization", "").partition(" ")
    if scheme.lower() != "bearer" or not secret.strip():
        raise ProblemError(401, "No token", "Send the token as Authorization: Bearer TOKEN.")
    try:
        return read_token_of(g.database, secret.strip(), g.now)
    except NoSuchReadToken as error:
        words = "It was revoked, its time is over, or it never was one. Make one on the account's page."
        raise ProblemError(401, "No such token", words) from error


@blueprint.get("/read/tables.zip")
@blueprint.input(TablesAsked, location="query")
@blueprint.doc(responses={**file_of("application/zip", "Tables"), 401: "No such token", 422: "Not usable"})
def read_tables_by_token(query_data: TablesAsked) -> Response:
    """The tables a token may read, sent as `Authorization: Bearer TOKEN`: of all tanks, or of its one."""
    token = _bearer()
    return tables_of(Tanks(g.database, token.account_id), token.tank_id, query_data.form)


@blueprint.get("/account/tables.zip")
@blueprint.input(TablesAsked, location="query")
@blueprint.doc(responses={**file_of("application/zip", "Tables"), 401: "Not signed in", 422: "Not usable"})
def read_tables(query_data: TablesAsked) -> Response:
    """All of an account as tidy tables, archived tanks too, with a dictionary of every column."""
    return tables_of(tanks(), None, query_data.form)


def tables_of(mine: Tanks, tank_id: int | None, form: Format) -> Response:
    """Tables as a zip. mine: the tanks of whoever asks; tank_id: of the one tank wanted, None for all; form: theirs."""
    held = [(t.id, t.name, False) for t in mine.all()]
    held += [(t.id, t.name, True) for t in mine.aside(g.now) if t.how == "archived"]
    records = [
        TankRecord(i, name, archived, mine.each_entry(i), mine.superseded_ids(i))
        for i, name, archived in held
        if tank_id in (None, i)
    ]
    return streamed_zip(lambda packed: write_account_tables(packed, records, form), f"reedmace-{form}.zip")
