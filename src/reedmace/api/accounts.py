"""Sign-up, sign-in, sign-out, change of password."""

from dataclasses import replace
from datetime import datetime
from itertools import pairwise

from apiflask import APIBlueprint
from flask import current_app, g, request, session
from flask_login import current_user, login_user, logout_user

from reedmace.api.account_schemas import (
    Closing,
    Contribution,
    Credentials,
    EmailChange,
    Guest,
    NewAccount,
    PasswordChange,
    SessionState,
    SignUp,
)
from reedmace.api.mail import mail_is_on, send_mail, tell
from reedmace.api.problems import ProblemError
from reedmace.api.session import CurrentKeeper, csrf_token, keeper, known_device, remember_device
from reedmace.api.units import written
from reedmace.core.contract import Issue
from reedmace.core.quantity.keeper_units import Units, units_of_keeper, units_of_locale
from reedmace.database import written_together
from reedmace.logbook.plans.room_plan import for_copies
from reedmace.store import GUEST_FOR, Rooms, Shelf, Tanks, contributes, set_contributes
from reedmace.store.keepers import Keeper
from reedmace.store.mail_addresses import mail_address

blueprint = APIBlueprint("accounts", __name__, url_prefix="/api", tag="Account")

DEMO_EMAIL = "keeper@fennel-yard.example"


EASY = ("password", "passwort", "qwerty", "qwertz", "letmein", "welcome", "iloveyou", "aquarium")


def reject_weak_password(password: str, email: str) -> None:
    """Reject an easily guessed password. Raises a 422 problem. password: wanted; email: of the account."""
    low = password.lower()
    rest = low.replace(email.lower().partition("@")[0], "")
    for easy in EASY:
        rest = rest.replace(easy, "")
    steps = {ord(b) - ord(a) for a, b in pairwise(low)}
    if len(set(low)) >= 5 and len(steps) > 2 and len(rest) >= 5:
        return
    what = "is among the first that are guessed: repeated, in a row, or the address itself."
    raise ProblemError(
        422, "Some of what was sent cannot be used", f"password: {what}",
        [Issue(where="password", what=what, remedy="Three or four words that do not belong together do well.")],
    )  # fmt: skip


def _state() -> SessionState:
    known = current_user.is_authenticated
    units = units_of_keeper(current_user.keeper.units) if known else Units()
    return SessionState(
        signed_in=known,
        email=current_user.keeper.email if known else None,
        visiting=known and current_user.keeper.visiting,
        guest_until=_guest_until() if known and current_user.keeper.guest else None,
        csrf_token=csrf_token(),
        demo_open=current_app.config["REEDMACE"].demo,
        mail_on=mail_is_on(),
        units=units,
        written=written(units),
    )


def _guest_until() -> datetime | None:
    made = g.accounts.made_at(current_user.keeper.id)
    return None if made is None else made + GUEST_FOR


def _end() -> None:
    if current_user.is_authenticated:
        g.accounts.end(current_user.token)
    logout_user()
    session.clear()


def start_session(who: Keeper) -> SessionState:
    """Sign a keeper in and return the new session. who: the keeper."""
    # A new session on a change of privilege: nothing from before sign-in carries over.
    _end()
    if not who.visiting and not who.guest:
        remember_device(who.id)
    login_user(CurrentKeeper(who, g.accounts.begin(who, g.now.replace(tzinfo=None))))
    return _state()


@blueprint.get("/session")
@blueprint.output(SessionState)
def read_session() -> SessionState:
    """Who is signed in."""
    return _state()


@blueprint.post("/account")
@blueprint.input(SignUp)
@blueprint.output(NewAccount, status_code=201)
@blueprint.doc(responses={403: "CSRF token missing", 409: "Address taken", 422: "Not usable", 429: "Paused"})
def sign_up(json_data: SignUp) -> NewAccount:
    """Make an account and sign in. Its recovery codes are shown only here."""
    reject_weak_password(json_data.password, json_data.email)
    now, units = g.now.replace(tzinfo=None), units_of_locale(json_data.locale, json_data.decimal)
    g.accounts.count_sign_up(request.remote_addr or "", now)

    def work() -> tuple[Keeper, list[str]]:
        made = g.accounts.sign_up(json_data.email, json_data.password, now, units=units.model_dump())
        return made, g.accounts.fresh_codes(made.id, now)

    # Both or neither: an account whose codes were never told would be half an account.
    who, codes = written_together(g.database, work)
    send_mail("confirm", who.id)
    return NewAccount(**dict(start_session(who)), recovery_codes=codes)


@blueprint.post("/session")
@blueprint.input(Credentials)
@blueprint.output(SessionState, status_code=201)
@blueprint.doc(
    responses={401: "Wrong address or password", 403: "CSRF token missing", 422: "Not usable", 429: "Paused"}
)
def sign_in(json_data: Credentials) -> SessionState:
    """Sign in."""
    who = g.accounts.sign_in(
        json_data.email, json_data.password, request.remote_addr or "", g.now.replace(tzinfo=None), known_device()
    )
    if who is None:
        raise ProblemError(401, "Not signed in", "The address or the password is not right.")
    before = known_device()
    if before is None or before.account_id != who.id:
        tell(who.id, "Somebody signed in on a device that was not used before.")
    return start_session(who)


@blueprint.post("/session/demo")
@blueprint.output(SessionState, status_code=201)
@blueprint.doc(responses={403: "CSRF token missing", 404: "No demo here", 429: "Paused"})
def sign_in_demo() -> SessionState:
    """Enter the demo, where it is available, in a copy of its tanks that is deleted after a day."""
    who = g.accounts.by_email(DEMO_EMAIL) if current_app.config["REEDMACE"].demo else None
    if who is None:
        raise ProblemError(404, "No demo here", "This server was started without the demo.")
    # Every visitor has a private copy, so that visitors cannot see or change each other's tanks.
    template = Tanks(g.database, who.id)
    visitor = g.accounts.visitor(g.now.replace(tzinfo=None), request.remote_addr or "", who.units)
    own = Tanks(g.database, visitor.id)
    entries = template.entries_of_all()
    twins = {t.id: own.bring(t.name, entries.get(t.id, []), g.now).id for t in template.all()}
    boxes = [(f"visit-{item.id:06d}", item.box) for item in Shelf(g.database, who.id).all()]
    Shelf(g.database, visitor.id).put(boxes, g.now)
    rooms = Rooms(g.database, visitor.id)
    for room in Rooms(g.database, who.id).all():
        rooms.make(room.name, for_copies(room.plan, twins), g.now)
    return start_session(visitor)


@blueprint.post("/session/guest")
@blueprint.input(Guest)
@blueprint.output(SessionState, status_code=201)
@blueprint.doc(responses={403: "CSRF token missing", 422: "Not usable", 429: "Paused"})
def sign_in_guest(json_data: Guest) -> SessionState:
    """Begin without an account: what is made is kept for 30 days on this browser, and longer once it is claimed."""
    if current_user.is_authenticated:
        return _state()
    units = units_of_locale(json_data.locale, json_data.decimal)
    now = g.now.replace(tzinfo=None)
    return start_session(g.accounts.guest(now, request.remote_addr or "", units.model_dump(), json_data.key))


@blueprint.post("/account/claim")
@blueprint.input(Credentials)
@blueprint.output(NewAccount, status_code=201)
@blueprint.doc(
    responses={
        401: "Not signed in",
        403: "CSRF token missing",
        409: "Address taken, or an account already",
        422: "Not usable",
        429: "Paused",
    }
)
def claim(json_data: Credentials) -> NewAccount:
    """Keep what a guest or a visit of the demo made, under an address and a password. Nothing of it is lost."""
    reject_weak_password(json_data.password, json_data.email)
    now = g.now.replace(tzinfo=None)
    g.accounts.count_sign_up(request.remote_addr or "", now)
    who = g.accounts.claim(keeper().id, json_data.email, json_data.password)
    if who is None:
        raise ProblemError(409, "An account already", "This is an account of its own; change it in Account.")
    send_mail("confirm", who.id)
    return NewAccount(**dict(start_session(who)), recovery_codes=g.accounts.fresh_codes(who.id, now))


@blueprint.delete("/session")
@blueprint.output(SessionState)
@blueprint.doc(responses={403: "CSRF token missing"})
def sign_out() -> SessionState:
    """Sign out; the session is deleted on the server too."""
    _end()
    return _state()


@blueprint.put("/account/units")
@blueprint.input(Units)
@blueprint.output(SessionState)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing", 422: "Not usable"})
def choose_units(json_data: Units) -> SessionState:
    """Choose the units of all answers."""
    g.accounts.choose_units(keeper().id, json_data.model_dump())
    current_user.keeper = replace(keeper(), units=json_data.model_dump())
    return _state()


def own_account() -> None:
    """Reject what would close the demo for everyone. Raises a 403 problem."""
    if keeper().visiting or (keeper().email == DEMO_EMAIL and current_app.config["REEDMACE"].demo):
        raise ProblemError(
            403,
            "Not in the demo",
            "A visit is forgotten after a day, whatever it is called; keep it first, under an address of your own.",
        )
    if keeper().guest:
        raise ProblemError(403, "No account yet", "Keep it first, under an address and a password of your own.")


@blueprint.get("/account/contribution")
@blueprint.output(Contribution)
@blueprint.doc(responses={401: "Not signed in"})
def read_contributing() -> Contribution:
    """Whether this account's boxes and flows count when typical boxes are learned."""
    return Contribution(contributes=contributes(g.database, keeper().id))


@blueprint.put("/account/contribution")
@blueprint.input(Contribution)
@blueprint.output(Contribution)
@blueprint.doc(responses={401: "Not signed in", 403: "CSRF token missing"})
def choose_contribution(json_data: Contribution) -> Contribution:
    """Choose whether this account's boxes and flows count when typical boxes are learned."""
    set_contributes(g.database, keeper().id, may=json_data.contributes)
    return json_data


@blueprint.put("/account/email")
@blueprint.input(EmailChange)
@blueprint.output(SessionState)
@blueprint.doc(
    responses={
        401: "Not signed in",
        403: "CSRF token missing or wrong password",
        409: "Taken",
        422: "Not usable",
        429: "Paused",
    }
)
def change_email(json_data: EmailChange) -> SessionState:
    """Change the address one signs in with; every other session of this account ends."""
    own_account()
    now = g.now.replace(tzinfo=None)
    before = mail_address(g.database, keeper().id)
    who = g.accounts.change_email(keeper().id, json_data.password, json_data.email, request.remote_addr or "", now)
    if who is None:
        raise ProblemError(403, "Address not changed", "The password is not right.")
    if before is not None:
        tell(who.id, f"The address was changed from {before.email} to {who.email}.", at=before)
    send_mail("confirm", who.id)
    return start_session(who)


@blueprint.post("/account/close")
@blueprint.input(Closing)
@blueprint.output(SessionState)
@blueprint.doc(
    responses={401: "Not signed in", 403: "CSRF token missing or wrong password", 422: "Not usable", 429: "Paused"}
)
def close_account(json_data: Closing) -> SessionState:
    """Delete the account with all tanks and logbooks. This cannot be undone."""
    own_account()
    if not g.accounts.close(keeper().id, json_data.password, request.remote_addr or "", g.now.replace(tzinfo=None)):
        raise ProblemError(403, "Account not closed", "The password is not right.")
    logout_user()
    session.clear()
    g.pop("_login_user", None)
    return _state()


@blueprint.put("/account/password")
@blueprint.input(PasswordChange)
@blueprint.output(SessionState)
@blueprint.doc(
    responses={401: "Not signed in", 403: "CSRF token missing or wrong password", 422: "Not usable", 429: "Paused"}
)
def change_password(json_data: PasswordChange) -> SessionState:
    """Change the password; every other session of this account ends."""
    own_account()
    reject_weak_password(json_data.new, keeper().email)
    who = g.accounts.change_password(
        keeper().id, json_data.old, json_data.new, request.remote_addr or "", g.now.replace(tzinfo=None)
    )
    if who is None:
        raise ProblemError(403, "Password not changed", "The old password is not right.")
    tell(who.id, "The password was changed.")
    return start_session(who)
