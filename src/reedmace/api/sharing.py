"""Sharing: household members by invitation, and public view links to one tank."""

from datetime import timedelta
from typing import Annotated

from apiflask import APIBlueprint
from flask import Response, g, request
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.account_schemas import Email
from reedmace.api.mail import links, reaches, send_mail, tell
from reedmace.api.openapi_responses import file_of
from reedmace.api.photos import PhotoOut, photo_out, picture_response
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.api.tanks import REFUSED
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting
from reedmace.core.quantity.keeper_units import units_of_keeper
from reedmace.core.stock import Animals
from reedmace.logbook.care.due import Due, due
from reedmace.logbook.plans.plan_kinds import FittedFilter, TankPlan
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.current_plans import stock_plan, tank_plan
from reedmace.logbook.replay.entries import Reading
from reedmace.logbook.replay.state import replay
from reedmace.logbook.rooms.room_view import animals_in_words
from reedmace.logbook.stages import today_view
from reedmace.logbook.stages.stage_rows import Stage
from reedmace.store import (
    INVITED_FOR,
    HouseholdMember,
    Households,
    Tanks,
    invited_by,
    make_view_link,
    revoke_view_link,
    view_link_since,
    viewed_tank,
)
from reedmace.store.mail_addresses import mail_address
from reedmace.store.photos import NoSuchPhotoError, Photos, shown_photos
from reedmace.store.roles import Role

blueprint = APIBlueprint("hands", __name__, url_prefix="/api", tag="Hands")

SEEN_TESTS = 10
SIGNED = {401: "Not signed in", 403: "CSRF token missing"}


class MemberOut(BaseModel):
    """A member of a household."""

    id: int = Field(ge=1, le=2**53)
    email: str
    role: Role


class Household(BaseModel):
    """Members of this household, and households this account helps in."""

    members: list[MemberOut]
    helps: list[MemberOut]


class InviteIn(BaseModel):
    """Role of the person invited."""

    model_config = ConfigDict(extra="forbid")
    role: Role
    email: Annotated[Email, Field(description="Where the link is mailed to as well")] | None = None


class InviteMade(BaseModel):
    """The link, shown only here; valid once."""

    url: str
    role: Role
    until: AwareDatetime
    mailed: bool


class InviteSeen(BaseModel):
    """The household an invitation belongs to."""

    email: str
    role: Role


class ViewLinkOut(BaseModel):
    """Creation time of the link; null without one."""

    made_at: AwareDatetime | None


class ViewLinkMade(ViewLinkOut):
    """The link itself, shown only here."""

    url: str


class TestSeen(BaseModel):
    """A test and its time."""

    at: AwareDatetime
    reading: Reading


class SharedTankView(BaseModel):
    """What anyone with the link sees of a tank: its state, animals, newest tests. Nothing of its keeper."""

    name: str
    verdict: str
    urgent: bool
    who: str
    stages: list[Stage]
    tests: list[TestSeen]
    due: list[Due]
    tank: TankPlan
    animals: list[Animals] = Field(description="In it, or planned where none are")
    filters: list[FittedFilter]
    photos: list[PhotoOut] = Field(description="Those its keeper chose")


def _households() -> Households:
    return Households(g.database, keeper().id)


def _seen() -> Household:
    mine = _households()
    return Household(members=[_out(h) for h in mine.members()], helps=[_out(h) for h in mine.helps()])


def _out(hand: HouseholdMember) -> MemberOut:
    return MemberOut(id=hand.id, email=hand.email, role=hand.role)


@blueprint.get("/household")
@blueprint.output(Household)
@blueprint.doc(responses={401: "Not signed in"})
def read_household() -> Household:
    """Members of this household, and households this account helps in."""
    return _seen()


@blueprint.post("/household/invites")
@blueprint.input(InviteIn)
@blueprint.output(InviteMade, status_code=201)
@blueprint.doc(responses={**SIGNED, 409: "Too many hands", 422: "Not usable"})
def make_invite(json_data: InviteIn) -> InviteMade:
    """A link by which one other keeper joins; valid once and for a week."""
    mailed = json_data.email is not None and _may_mail(json_data.email)
    token = _households().invite(json_data.role, g.now)
    if mailed and json_data.email is not None:
        send_mail("invite", keeper().id, to=json_data.email, link=links().page(f"/join/{token}"))
    return InviteMade(url=_page("join", token), role=json_data.role, until=g.now + INVITED_FOR, mailed=mailed)


def _may_mail(to: str) -> bool:
    """Whether this keeper's own address is known, so that nobody sends mail in another's name. Counts the mail."""
    of = mail_address(g.database, keeper().id)
    if of is None or of.visiting or not reaches(of):
        return False
    g.accounts.count_mail(to, request.remote_addr or "", g.now.replace(tzinfo=None))
    return True


@blueprint.delete("/household/invites")
@blueprint.output(Household)
@blueprint.doc(responses=SIGNED)
def revoke_invites() -> Household:
    """Revoke every open invitation."""
    _households().revoke_invites()
    return _seen()


@blueprint.delete("/household/members/<int:member_id>")
@blueprint.output(Household)
@blueprint.doc(responses={**SIGNED, 404: "No such hand"})
def end_membership(member_id: int) -> Household:
    """End a membership, another's or one's own."""
    ended = next((m for m in _households().helps() if m.id == member_id), None)
    if not _households().part(member_id):
        raise ProblemError(404, "No such hand", "It may have ended already.")
    if ended is not None:
        tell(ended.account_id, f"{keeper().email} no longer helps with your tanks.")
    return _seen()


@blueprint.get("/invites/<token>")
@blueprint.output(InviteSeen)
@blueprint.doc(responses={401: "Not signed in", 404: "The link opens nothing"})
def read_invite(token: str) -> InviteSeen:
    """The household of an invitation, for a signed-in keeper."""
    keeper()
    owner, role = invited_by(g.database, token, g.now)
    return InviteSeen(email=owner.email, role=role)


@blueprint.post("/invites/<token>")
@blueprint.output(Household, status_code=201)
@blueprint.doc(responses={**SIGNED, 404: "The link opens nothing"})
def accept_invite(token: str) -> Household:
    """Accept an invitation."""
    joined = _households().accept(token, g.now)
    tell(joined.account_id, f"{keeper().email} joined those who keep your tanks.")
    return _seen()


@blueprint.get("/tanks/<int:tank_id>/link")
@blueprint.output(ViewLinkOut)
@blueprint.doc(responses={401: "Not signed in", 403: "Its own keeper's to do", 404: "No such tank"})
def read_view_link(tank_id: int) -> ViewLinkOut:
    """Whether a view link to this tank exists."""
    tanks().allow_owner(tank_id)
    return ViewLinkOut(made_at=view_link_since(g.database, tank_id))


@blueprint.post("/tanks/<int:tank_id>/link")
@blueprint.output(ViewLinkMade, status_code=201)
@blueprint.doc(responses=REFUSED)
def create_view_link(tank_id: int) -> ViewLinkMade:
    """Make a view link to this tank; an older one stops working."""
    tanks().allow_owner(tank_id)
    return ViewLinkMade(made_at=g.now, url=_page("look", make_view_link(g.database, tank_id, g.now)))


@blueprint.delete("/tanks/<int:tank_id>/link")
@blueprint.output(ViewLinkOut)
@blueprint.doc(responses=REFUSED)
def end_view_link(tank_id: int) -> ViewLinkOut:
    """Revoke the view link."""
    tanks().allow_owner(tank_id)
    revoke_view_link(g.database, tank_id)
    return ViewLinkOut(made_at=None)


def _opened(token: str) -> tuple[int, int]:
    """Account and tank that a view link opens. Raises a 404 problem, counted, for one that opens nothing."""
    found = viewed_tank(g.database, token)
    if found is None:
        # A right link opens from anywhere: its neighbours' wrong ones must not close it.
        g.accounts.reject_guessing(request.remote_addr or "", g.now.replace(tzinfo=None))
        g.accounts.count_guess(request.remote_addr or "", g.now.replace(tzinfo=None))
        raise ProblemError(404, "Not found", "This link opens nothing: it was revoked, or made anew.")
    return found


@blueprint.get("/look/<token>")
@blueprint.output(SharedTankView)
@blueprint.doc(responses={404: "The link opens nothing", 429: "Paused"})
def view_shared_tank(token: str) -> SharedTankView:
    """The state of a tank, for anyone with the link. Not to be indexed."""
    account, tank_id = _opened(token)
    mine, owner = Tanks(g.database, account), g.accounts.by_id(account)
    tank = mine.get(tank_id)
    with formatting.in_units(units_of_keeper(owner.units if owner else None).chosen()):
        state = replay(mine.recent(tank_id))
        view, stages = today_view(state, g.now)
        try:
            rows = due(state, g.now)
        except CannotAnswer:
            rows = []
    tests = [TestSeen(at=e.at, reading=e.body) for e in state.readings[-SEEN_TESTS:] if isinstance(e.body, Reading)]
    return SharedTankView(
        name=tank.name,
        verdict=view.verdict,
        urgent=view.urgent,
        who=animals_in_words(state),
        stages=stages,
        tests=tests[::-1],
        due=[d for d in rows if d.at <= g.now + timedelta(days=7)],
        tank=tank_plan(state),
        animals=animals_in(state) or stock_plan(state).animals,
        filters=state.filters(),
        photos=[photo_out(photo) for photo in shown_photos(g.database, tank_id)],
    )


@blueprint.get("/look/<token>/photos/<int:photo_id>.jpg")
@blueprint.doc(responses={**file_of("image/jpeg", "The picture"), 404: "The link opens nothing", 429: "Paused"})
def view_shared_photo(token: str, photo_id: int) -> Response:
    """A photograph that its keeper put on the page of a view link."""
    account, tank_id = _opened(token)
    if photo_id not in {photo.id for photo in shown_photos(g.database, tank_id)}:
        raise NoSuchPhotoError
    image, digest = Photos(g.database, Tanks(g.database, account), account).picture(tank_id, photo_id, small=False)
    return picture_response(digest, image)


def _page(kind: str, token: str) -> str:
    """URL of a page of the application."""
    return f"{request.url_root}{kind}/{token}"
