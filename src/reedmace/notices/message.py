"""The mails as they are sent: text and HTML of one letter, readable in dark and without pictures."""

import hashlib
from dataclasses import asdict
from datetime import datetime
from email.message import EmailMessage
from email.utils import format_datetime

from jinja2 import Environment, PackageLoader, StrictUndefined, select_autoescape

from reedmace.core.quantity.keeper_units import with_comma
from reedmace.notices.account_mail import AccountMail
from reedmace.notices.letter import Letter, TankPart
from reedmace.notices.links import Links
from reedmace.notices.picture import Outline, draw

MOST_PICTURES = 6
"""Tanks of one mail that are drawn."""
_PAGES = Environment(
    loader=PackageLoader("reedmace.notices"),
    autoescape=select_autoescape(["html"]),
    undefined=StrictUndefined,
    trim_blocks=True,
    lstrip_blocks=True,
)


def letter_message(letter: Letter, account_id: int, links: Links, *, comma: bool = False) -> EmailMessage:
    """A letter on tanks, with an end in one press. account_id: whose; comma: whether they write decimals so."""
    end = links.end_notices(account_id)
    said = with_comma(asdict(letter)) if comma else asdict(letter)
    pages = {"page": links.page, "end": links.page(f"/no-mail/{end}"), "account": links.page("/account")}
    outlines = _outlines(letter)
    drawn = {part.tank_id: outline.in_words(part.name) for part, outline in outlines}
    message = _message(said["subject"], "letter", {"letter": said, "drawn": drawn, **pages})
    html = message.get_body(("html",))
    if not isinstance(html, EmailMessage):
        raise TypeError("the mail has no HTML part")
    for part, outline in outlines:
        html.add_related(draw(outline), "image", "png", cid=f"<tank-{part.tank_id}@reedmace>")
    # RFC 8058: mail programs end it without opening a page.
    message["List-Unsubscribe"] = f"<{links.page(f'/api/no-mail/{end}')}>"
    message["List-Unsubscribe-Post"] = "List-Unsubscribe=One-Click"
    return message


def _outlines(letter: Letter) -> list[tuple[TankPart, Outline]]:
    """The first tanks that have been measured: a mail of sixty tanks is not sixty pictures."""
    return [(part, part.outline) for part in letter.tanks if part.outline is not None][:MOST_PICTURES]


def account_message(mail: AccountMail) -> EmailMessage:
    """A mail about the account itself, which no choice of notices ends."""
    return _message(mail.subject, "account", {"mail": mail})


def _message(subject: str, page: str, fields: dict[str, object]) -> EmailMessage:
    message = EmailMessage()
    # No name or verdict may bring a header line of its own.
    message["Subject"] = " ".join(subject.split())[:180]
    message.set_content(_PAGES.get_template(f"{page}.txt").render(**fields))
    message.add_alternative(_PAGES.get_template(f"{page}.html").render(**fields), subtype="html")
    return message


def address(message: EmailMessage, sender: str, to: str, notice_id: int, now: datetime) -> EmailMessage:
    """The message with sender, recipient, date and its own id, the same each time, so that a repeat is known as one.

    now: aware time.
    """
    message["From"] = f"Reedmace <{sender}>"
    message["To"] = to
    message["Date"] = format_datetime(now)
    mark = hashlib.sha256(f"{notice_id}:{to}".encode()).hexdigest()[:16]
    message["Message-ID"] = f"<notice-{notice_id}-{mark}@{sender.rpartition('@')[2]}>"
    message["Auto-Submitted"] = "auto-generated"
    return message
