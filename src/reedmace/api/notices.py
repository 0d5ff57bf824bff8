"""What reaches a keeper: the choice of notices, confirmed addresses, new passwords by mail, the end of all mail."""

from base64 import b64encode
from dataclasses import asdict
from typing import Annotated
from urllib.parse import quote

from apiflask import APIBlueprint
from flask import Response, current_app, g, redirect, request
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.api.account_schemas import Email, Password, SessionState
from reedmace.api.accounts import reject_weak_password, start_session
from reedmace.api.mail import links, mail_is_on, reaches, send_mail, tell
from reedmace.api.openapi_responses import file_of
from reedmace.api.problems import ProblemError
from reedmace.api.session import keeper, tanks
from reedmace.api.snapshot_cache import snapshots
from reedmace.notices import NoticeChoice
from reedmace.notices.letter import day_letter
from reedmace.notices.links import mark_of
from reedmace.standins.mail_server import Mailbox
from reedmace.store import Notices
from reedmace.store.accounts import MAILS_TO_AN_HOUR
from reedmace.store.mail_addresses import MailAddress, confirm_address, mail_address, mail_address_of

blueprint = APIBlueprint("notices", __name__, url_prefix="/api", tag="Account")

SIGNED = {401: "Not signed in", 403: "CSRF token missing"}
SECRET_PATHS = ("/confirm/", "/new-password/", "/no-mail/", "/api/no-mail/")
"""Addresses that are secrets themselves."""
MAIL_POLICY = (
    "default-src 'none'; img-src data:; style-src 'unsafe-inline'; frame-ancestors 'self';"
    " sandbox allow-top-navigation-by-user-activation allow-popups"
)
"""A mail brings styles of its own and nothing that runs."""
MOST_SHOWN = 30
"""Mails of the demo's mailbox that are shown."""
Token = Annotated[str, Field(max_length=600)]
_OLD = "The link was used, is too old, or was cut off by the mail program. Ask for a new one."


class NoticeSent(BaseModel):
    """A notice that is done with."""

    kind: str
    state: str
    at: AwareDatetime | None
    error: str


class NoticeState(BaseModel):
    """The choice, where mail would go, and what went out last."""

    choice: NoticeChoice
    mail_on: bool = Field(description="Whether this installation sends mail")
    address: str | None
    confirmed: bool = Field(description="Whether mail may go to the address")
    mailbox: bool = Field(description="Whether the demo shows what arrived")
    latest: list[NoticeSent]


class LetterTask(BaseModel):
    """One thing to do in a letter."""

    title: str
    detail: str
    when: str


class LetterTank(BaseModel):
    """What a letter says of one tank."""

    tank_id: int = Field(ge=1, le=2**53)
    name: str
    stage: str
    verdict: str
    urgent: bool
    tasks: list[LetterTask]
    more: int


class LetterOut(BaseModel):
    """The day's list as it would go out now; without tanks where nothing is due."""

    subject: str
    tanks: list[LetterTank]


class Forgotten(BaseModel):
    """An address whose password is forgotten."""

    model_config = ConfigDict(extra="forbid")
    email: Email


class Asked(BaseModel):
    """What was asked for is on its way, if the address has an account."""

    said: str


class TokenIn(BaseModel):
    """The token of a link."""

    model_config = ConfigDict(extra="forbid")
    token: Token


class NewPassword(BaseModel):
    """The token of a link and the new password."""

    model_config = ConfigDict(extra="forbid")
    token: Token
    password: Password


class Confirmed(BaseModel):
    """The address that is confirmed."""

    email: str


class MailEnded(BaseModel):
    """Whether all mail has ended."""

    ended: bool


class ArrivedMail(BaseModel):
    """A mail in the demo's mailbox."""

    id: str
    subject: str
    at: AwareDatetime


class ArrivedMails(BaseModel):
    """The mails of this visit, newest first."""

    address: str
    mails: list[ArrivedMail]


def _own_address() -> MailAddress:
    of = mail_address(g.database, keeper().id)
    if of is None:
        raise ProblemError(403, "No account yet", "Keep it first, under an address and a password of your own.")
    return of


def _state() -> NoticeState:
    notices, of = Notices(g.database), mail_address(g.database, keeper().id)
    latest = notices.latest(keeper().id)
    return NoticeState(
        choice=NoticeChoice.model_validate(notices.choice(keeper().id) or {}),
        mail_on=mail_is_on() and of is not None,
        address=None if of is None else of.email,
        confirmed=of is not None and reaches(of),
        mailbox=current_app.config["REEDMACE"].mail_folder is not None and of is not None,
        latest=[NoticeSent(kind=n.kind, state=n.state, at=n.done_at, error=n.error) for n in latest],
    )


@blueprint.get("/account/notices")
@blueprint.output(NoticeState)
@blueprint.doc(responses={401: "Not signed in"})
def read_notices() -> NoticeState:
    """What reaches this account, and what went out last."""
    return _state()


@blueprint.put("/account/notices")
@blueprint.input(NoticeChoice)
@blueprint.output(NoticeState)
@blueprint.doc(responses={**SIGNED, 422: "Not usable"})
def choose_notices(json_data: NoticeChoice) -> NoticeState:
    """Choose what reaches this account, and when."""
    Notices(g.database).choose(keeper().id, json_data.model_dump(mode="json"), g.now)
    return _state()


@blueprint.get("/account/notices/letter")
@blueprint.output(LetterOut)
@blueprint.doc(responses={401: "Not signed in"})
def read_letter() -> LetterOut:
    """The day's list as it would go out now."""
    choice = NoticeChoice.model_validate(Notices(g.database).choice(keeper().id) or {})
    letter = day_letter(list(snapshots(tanks().all()).values()), choice, g.now)
    if letter is None:
        return LetterOut(subject="Nothing is due today, so no list would come.", tanks=[])
    said = asdict(letter)
    shown = LetterTank.model_fields
    tanks_out = [LetterTank(**{k: v for k, v in one.items() if k in shown}) for one in said["tanks"]]
    return LetterOut(subject=said["subject"], tanks=tanks_out)


@blueprint.post("/account/confirmation")
@blueprint.output(Asked, status_code=202)
@blueprint.doc(responses={**SIGNED, 409: "No mail here", 429: "Paused"})
def ask_confirmation() -> Asked:
    """Send a link to this account's address that confirms it."""
    of = _own_address()
    if not mail_is_on():
        raise ProblemError(409, "No mail here", "This installation sends no mail; its operator can name a server.")
    g.accounts.count_mail(of.email, request.remote_addr or "", g.now.replace(tzinfo=None))
    send_mail("confirm", of.account_id)
    return Asked(said=f"A link is on its way to {of.email}. It works for a week.")


@blueprint.post("/confirmation")
@blueprint.input(TokenIn)
@blueprint.output(Confirmed)
@blueprint.doc(responses={403: "CSRF token missing", 404: "The link opens nothing", 422: "Not usable"})
def confirm(json_data: TokenIn) -> Confirmed:
    """Confirm an address by the link sent to it."""
    found = links().read_confirm(json_data.token)
    if found is None or not confirm_address(g.database, *found, g.now.replace(tzinfo=None)):
        raise ProblemError(404, "Not found", _OLD)
    return Confirmed(email=found[1])


@blueprint.post("/password/forgotten")
@blueprint.input(Forgotten)
@blueprint.output(Asked, status_code=202)
@blueprint.doc(responses={403: "CSRF token missing", 409: "No mail here", 422: "Not usable", 429: "Paused"})
def forget_password(json_data: Forgotten) -> Asked:
    """Send a link to a new password. The answer is the same whether the address has an account or not."""
    if not mail_is_on():
        raise ProblemError(409, "No mail here", "This installation sends no mail; use one of your recovery codes.")
    g.accounts.count_mail(json_data.email, request.remote_addr or "", g.now.replace(tzinfo=None))
    of = mail_address_of(g.database, json_data.email)
    if of is not None and not of.visiting:
        send_mail("reset", of.account_id)
    return Asked(
        said=f"If {json_data.email} has an account, a link is on its way; it works once and for half an hour. At most"
        f" {MAILS_TO_AN_HOUR} an hour are sent."
    )


@blueprint.post("/password/new")
@blueprint.input(NewPassword)
@blueprint.output(SessionState, status_code=201)
@blueprint.doc(responses={403: "CSRF token missing", 404: "The link opens nothing", 422: "Not usable"})
def set_new_password(json_data: NewPassword) -> SessionState:
    """A new password by the link of a mail; every other session ends, and the link works no more."""
    found = links().read_reset(json_data.token)
    of = None if found is None else mail_address(g.database, found[0])
    if found is None or of is None or mark_of(of.password_hash) != found[1]:
        raise ProblemError(404, "Not found", _OLD)
    reject_weak_password(json_data.password, of.email)
    g.accounts.reset(of.email, json_data.password)
    # Whoever has the link reads what comes to the address.
    confirm_address(g.database, of.account_id, of.email, g.now.replace(tzinfo=None))
    tell(of.account_id, "A new password was chosen by a link sent to this address.")
    return start_session(g.accounts.by_id(of.account_id))


@blueprint.get("/no-mail/<token>")
@blueprint.doc(responses={302: "To the page that asks"})
def ask_end_of_mail(token: str) -> Response:
    """The page on which all mail is ended, for programs that open the address instead of sending to it."""
    return redirect(f"/no-mail/{quote(token, safe='')}")  # type: ignore[return-value] # werkzeug's own response


@blueprint.post("/no-mail/<token>")
@blueprint.output(MailEnded)
@blueprint.doc(responses={404: "The link opens nothing"})
def end_mail(token: str) -> MailEnded:
    """End all mail to an account, in one press from the mail itself (RFC 8058). What is on the page stays."""
    account_id = links().read_end(token)
    if account_id is None or mail_address(g.database, account_id) is None:
        raise ProblemError(404, "Not found", _OLD)
    notices = Notices(g.database)
    choice = NoticeChoice.model_validate(notices.choice(account_id) or {})
    notices.choose(account_id, choice.model_copy(update={"mail": False}).model_dump(mode="json"), g.now)
    return MailEnded(ended=True)


@blueprint.get("/demo/mail")
@blueprint.output(ArrivedMails)
@blueprint.doc(responses={401: "Not signed in", 404: "Only in the demo"})
def read_mailbox() -> ArrivedMails:
    """What arrived at this account's address in the demo's simulated mail server."""
    folder, of = current_app.config["REEDMACE"].mail_folder, mail_address(g.database, keeper().id)
    if folder is None or of is None:
        raise ProblemError(404, "Not found", "Only the demo keeps mails itself.")
    kept = Mailbox(folder).of(of.email)[:MOST_SHOWN]
    return ArrivedMails(address=of.email, mails=[ArrivedMail(id=m.id, subject=m.subject, at=m.at) for m in kept])


@blueprint.get("/demo/mail/<mail_id>")
@blueprint.doc(responses={**file_of("text/html", "The mail"), 401: "Not signed in", 404: "Only in the demo"})
def read_mail(mail_id: str) -> Response:
    """One mail of this visit as a mail program shows it, shut off from everything else."""
    folder, of = current_app.config["REEDMACE"].mail_folder, mail_address(g.database, keeper().id)
    kept = [] if folder is None or of is None else Mailbox(folder).of(of.email)
    mail = next((m for m in kept if m.id == mail_id), None)
    if mail is None:
        raise ProblemError(404, "Not found", "No mail of this visit.")
    html = mail.html.replace("<head>", '<head><base target="_top">')
    for name, image in mail.pictures.items():
        html = html.replace(f"cid:{name}", f"data:image/png;base64,{b64encode(image).decode()}")
    return Response(
        html,
        mimetype="text/html",
        headers={"Content-Security-Policy": MAIL_POLICY},
    )
