"""An account as the rest of the program sees it, and a device that was signed in."""

from dataclasses import dataclass

GUEST = "guest "
"""Email prefix of a guest's account."""


VISITOR = "visitor "
"""Email prefix of a visit's account. No email address starts like this, since none contains a space."""


class EmailTaken(Exception):
    """The email address already has an account."""


@dataclass(frozen=True)
class Device:
    """A browser that has been signed in before: to which account, and its own secret."""

    account_id: int
    secret: str


@dataclass(frozen=True)
class Keeper:
    """An account as the rest of the program sees it."""

    id: int
    email: str
    units: dict[str, str] | None = None
    """As chosen, or None."""

    @property
    def visiting(self) -> bool:
        """Whether this is a visit of the demo."""
        return self.email.startswith(VISITOR)

    @property
    def guest(self) -> bool:
        """Whether nobody has given it an email address yet."""
        return self.email.startswith(GUEST)
