"""One calendar for all tanks of an account, behind a secret link that can be revoked."""

from apiflask import APIBlueprint
from flask import Response, g, url_for
from pydantic import AwareDatetime, BaseModel, Field

from reedmace.api.openapi_responses import READ, file_of
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, state_of, tanks
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.quantity.keeper_units import units_of_keeper
from reedmace.formats import write_calendar
from reedmace.logbook.care.ahead import calendar_rows
from reedmace.logbook.care.due import Due, week_words
from reedmace.logbook.replay.state import replay
from reedmace.store import Tanks

blueprint = APIBlueprint("calendar", __name__, url_prefix="/api", tag="Account")


class CalendarLink(BaseModel):
    """Creation time of the link; null without one."""

    made_at: AwareDatetime | None


class CalendarMade(CalendarLink):
    """The link itself, shown only here."""

    url: str


class AheadRow(BaseModel):
    """One thing to do in one tank."""

    tank_id: int = Field(ge=1, le=2**53)
    tank: str
    due: Due


class AheadList(BaseModel):
    """What is due in all tanks, soonest first."""

    verdict: str
    rows: list[AheadRow]
    at_odds: list[str] = Field(description="Tanks whose figures do not agree: nothing of theirs stands here")


@blueprint.get("/tanks/<int:tank_id>/calendar.ics")
@blueprint.doc(responses={**file_of("text/calendar", "iCalendar"), **READ})
def read_calendar(tank_id: int) -> Response:
    """Due tasks of one tank as iCalendar: leak checks, care, spare sponges, the cycle."""
    mine = tanks()
    name, state = mine.get(tank_id).name, state_of(tank_id)
    text = write_calendar([(tank_id, name, one) for one in calendar_rows(state, g.now)], g.now)
    headers = {"Content-Disposition": f'attachment; filename="tank-{tank_id}.ics"'}
    return Response(text, mimetype="text/calendar", headers=headers)


@blueprint.get("/ahead")
@blueprint.output(AheadList)
@blueprint.doc(responses={401: "Not signed in"})
def read_ahead() -> AheadList:
    """Due tasks of all tanks over the coming weeks, all occurrences."""
    mine = tanks()
    entries = mine.recent_of_all()
    rows: list[AheadRow] = []
    at_odds: list[str] = []
    for tank in mine.all():
        try:
            found = calendar_rows(replay(entries.get(tank.id, [])), g.now, again=True)
        except CannotAnswer:
            at_odds.append(tank.name)
            continue
        rows += [AheadRow(tank_id=tank.id, tank=tank.name, due=one) for one in found]
    rows.sort(key=lambda r: (r.due.at, r.tank_id, r.due.key))
    return AheadList(verdict=week_words([r.due for r in rows], g.now), rows=rows, at_odds=at_odds)


@blueprint.get("/account/calendar")
@blueprint.output(CalendarLink)
@blueprint.doc(responses={401: "Not signed in"})
def read_link() -> CalendarLink:
    """Whether a calendar link exists. The link itself is shown only when it is made."""
    return CalendarLink(made_at=g.accounts.calendar_since(keeper().id))


@blueprint.post("/account/calendar")
@blueprint.output(CalendarMade, status_code=201)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing"})
def make_link() -> CalendarMade:
    """Make a calendar link; an older one stops working."""
    token = g.accounts.calendar_link(keeper().id, g.now.replace(tzinfo=None))
    return CalendarMade(made_at=g.now, url=url_for("calendar.read_feed", token=token, _external=True))


@blueprint.delete("/account/calendar")
@blueprint.output(CalendarLink)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing"})
def end_link() -> CalendarLink:
    """Revoke the link."""
    g.accounts.end_calendar(keeper().id)
    return CalendarLink(made_at=None)


@blueprint.get("/calendar/<token>.ics")
@blueprint.doc(responses={**file_of("text/calendar", "iCalendar"), 404: READ[404]})
def read_feed(token: str) -> Response:
    """Due tasks of all tanks, for a calendar that subscribes. Anyone with the link may read it."""
    who = g.accounts.by_calendar(token)
    if who is None:
        raise ProblemError(404, "Not found", "This link opens nothing: it was revoked, or made anew.")
    mine = Tanks(g.database, who.id)
    entries = mine.recent_of_all()
    rows: list[tuple[int, str, Due]] = []
    with formatting.in_units(units_of_keeper(who.units).chosen()):
        for tank in mine.all():
            try:
                found = calendar_rows(replay(entries.get(tank.id, [])), g.now)
            except CannotAnswer:
                # A tank with inconsistent figures does not hide the others' dates.
                continue
            rows += [(tank.id, tank.name, one) for one in found]
    text = write_calendar(rows, g.now)
    headers = {"Content-Disposition": 'inline; filename="reedmace.ics"', "X-Robots-Tag": "noindex"}
    return Response(text, mimetype="text/calendar", headers=headers)
