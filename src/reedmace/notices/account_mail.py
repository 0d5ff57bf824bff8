"""Mails about an account itself: its address confirmed, a new password, what was changed, an invitation."""

import secrets
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from reedmace.notices.links import Links
from reedmace.store import Notices
from reedmace.store.mail_addresses import MailAddress

AccountKind = Literal["confirm", "reset", "told", "invite"]


@dataclass(frozen=True)
class AccountMail:
    """What an account mail says: lines of text, and one link with its words where there is one."""

    subject: str
    lines: list[str]
    link: str = ""
    link_words: str = ""


def queue(
    notices: Notices, kind: AccountKind, account_id: int, now: datetime, *, to: str = "", text: str = "", link: str = ""
) -> None:
    """Queue a mail about an account.

    kind: of it; now: aware time; to: address where it is not the account's own; text: what happened, for "told"; link:
    of an invitation. Links to a password or an address are made when it is sent, so that none is ever stored.
    """
    body = {"to": to, "text": text, "link": link}
    notices.add(account_id, f"{kind}:{secrets.token_hex(12)}", kind, now, body=body)


def account_mail(kind: str, body: dict[str, str], of: MailAddress, links: Links) -> AccountMail:
    """The mail of a queued notice. kind, body: as queued; of: the account."""
    if kind == "confirm":
        return AccountMail(
            "Confirm this address",
            ["Somebody, most likely you, keeps tanks with Reedmace under this address. Confirm it, and reminders may"
             " come here.", "If it was not you, do nothing: nothing more is sent."],
            links.page(f"/confirm/{links.confirm(of.account_id, of.email)}"),
            "Confirm this address",
        )  # fmt: skip
    if kind == "reset":
        return AccountMail(
            "A new password",
            ["A new password was asked for. The link works once and for half an hour.",
             "If you did not ask, do nothing: the old password stays."],
            links.page(f"/new-password/{links.reset(of.account_id, of.password_hash)}"),
            "Choose a new password",
        )  # fmt: skip
    if kind == "invite":
        words = [f"{of.email} asks you to help with their tanks.", "The link works once and for a week."]
        return AccountMail("Help with some tanks", words, body["link"], "See the invitation")
    words = [body["text"], "If it was not you: choose a new password, which ends every other session."]
    return AccountMail("Your account", words, links.page("/account"), "Open your account")
