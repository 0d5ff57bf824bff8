"""Mails about an account, queued in the request that gives cause for them."""

from flask import current_app, g

from reedmace.notices import Links, queue
from reedmace.notices.account_mail import AccountKind
from reedmace.store import Notices
from reedmace.store.mail_addresses import MailAddress, mail_address


def mail_is_on() -> bool:
    """Whether this installation sends mail."""
    return current_app.config["REEDMACE"].mail is not None


def links() -> Links:
    """Links as mails have them."""
    return Links(str(current_app.secret_key), current_app.config["REEDMACE"].public_url)


def reaches(of: MailAddress) -> bool:
    """Whether mail may go to an address: it is confirmed, or the demo's own mail server keeps it."""
    mail = current_app.config["REEDMACE"].mail
    return mail is not None and (of.confirmed or mail.standin)


def send_mail(kind: AccountKind, account_id: int, *, to: str = "", link: str = "") -> None:
    """Queue a mail about an account; nothing where no mail is sent. to: address that is not the account's own."""
    if mail_is_on():
        queue(Notices(g.database), kind, account_id, g.now, to=to, link=link)


def tell(account_id: int, text: str, *, at: MailAddress | None = None) -> None:
    """Tell a keeper what happened to the account, where its address is confirmed.

    text: what; at: address and state before a change, where it is not the present one.
    """
    of = at or mail_address(g.database, account_id)
    if of is not None and not of.visiting and reaches(of):
        queue(Notices(g.database), "told", account_id, g.now, to=of.email, text=text)
