"""A simulated mail server: it takes every mail and keeps it in a folder, from which the demo shows it."""

import asyncio
import email
import email.policy
import hashlib
import signal
import sys
from dataclasses import dataclass
from datetime import UTC, datetime
from email.message import EmailMessage
from pathlib import Path

from aiosmtpd.smtp import SMTP, Envelope, Session

HOST = "127.0.0.1"
LARGEST = 2_000_000
"""Bytes of the largest mail it takes."""
ARRIVALS = "arrivals.txt"
"""A line for every mail taken, the same one twice where it came twice."""
KEPT = 2000
"""Mails it keeps; the oldest go."""


@dataclass(frozen=True)
class KeptMail:
    """A mail as it arrived.

    at: aware time of its arrival; html: as it was written, not to be trusted; pictures: PNG by Content-ID.
    """

    id: str
    to: str
    subject: str
    at: datetime
    text: str
    html: str
    pictures: dict[str, bytes]
    headers: dict[str, str]


class Mailbox:
    """The folder of arrived mails. One file each, named after the message's id, so that a repeat is one mail."""

    def __init__(self, folder: Path, kept: int = KEPT) -> None:
        self.folder, self._kept = folder, kept

    def put(self, to: str, raw: bytes) -> None:
        """Keep a mail, whole or not at all. to: its recipient; raw: as sent."""
        message_id = email.message_from_bytes(raw).get("Message-ID", "") or hashlib.sha256(raw).hexdigest()
        name = hashlib.sha256(f"{to}:{message_id}".encode()).hexdigest()[:32]
        self.folder.mkdir(parents=True, exist_ok=True)
        draft = self.folder / f".{name}"
        draft.write_bytes(f"X-Arrived-For: {to}\r\n".encode() + raw)
        with (self.folder / ARRIVALS).open("a") as log:
            log.write(f"{name}\n")
        draft.replace(self.folder / f"{name}.eml")
        for old in sorted(self.folder.glob("*.eml"), key=lambda p: p.stat().st_mtime)[: -self._kept]:
            old.unlink(missing_ok=True)

    def arrivals(self) -> list[str]:
        """Ids of the mails taken, in their order; one that came twice stands twice."""
        log = self.folder / ARRIVALS
        return log.read_text().split() if log.exists() else []

    def of(self, to: str) -> list[KeptMail]:
        """Mails to an address, the newest first. to: in small letters."""
        found = []
        for path in self.folder.glob("*.eml"):
            message = email.message_from_bytes(path.read_bytes(), policy=email.policy.default)
            if isinstance(message, EmailMessage) and str(message["X-Arrived-For"]).lower() == to:
                found.append(_kept(path, message))
        return sorted(found, key=lambda one: (one.at, one.id), reverse=True)


def _kept(path: Path, message: EmailMessage) -> KeptMail:
    def content(kind: str) -> str:
        part = message.get_body((kind,))
        return "" if part is None else str(part.get_content())

    return KeptMail(
        id=path.stem,
        to=str(message["X-Arrived-For"]),
        subject=str(message["Subject"]),
        at=datetime.fromtimestamp(path.stat().st_mtime, UTC),
        text=content("plain"),
        html=content("html"),
        pictures={
            str(part["Content-ID"]).strip("<>"): bytes(part.get_payload(decode=True))
            for part in message.walk()
            if part.get_content_type() == "image/png" and part["Content-ID"]
        },
        headers={key: str(value) for key, value in message.items()},
    )


class _Handler:
    """Takes every mail."""

    def __init__(self, mailbox: Mailbox) -> None:
        self._mailbox = mailbox

    async def handle_DATA(self, _: SMTP, __: Session, envelope: Envelope) -> str:  # noqa: N802, aiosmtpd's name
        raw = envelope.content
        if not isinstance(raw, bytes):
            return "500 Only bytes"
        for to in envelope.rcpt_tos:
            self._mailbox.put(str(to), raw)
        return "250 Kept"


async def _serve(port: int, mailbox: Mailbox) -> None:
    loop = asyncio.get_running_loop()
    handler = _Handler(mailbox)
    server = await loop.create_server(
        lambda: SMTP(handler, data_size_limit=LARGEST, hostname="mail.example", enable_SMTPUTF8=True), HOST, port
    )
    ended = asyncio.Event()
    for number in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(number, ended.set)
    async with server:
        await ended.wait()


def main() -> int:
    """Serve until stopped: PORT FOLDER [MAILS KEPT]."""
    port, folder, *kept = sys.argv[1:]
    asyncio.run(_serve(int(port), Mailbox(Path(folder), int(kept[0]) if kept else KEPT)))
    return 0


if __name__ == "__main__":
    sys.exit(main())
