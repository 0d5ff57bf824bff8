"""Quotas of one account, far above what keeping tanks needs."""

from dataclasses import dataclass

MOST_TANKS = 2000
"""Of one account, archived ones included."""
MOST_PRACTICE_TANKS = 30
"""Of one account; the oldest makes room for a new one, how its lesson ended is kept."""
MOST_ROOMS = 100
MOST_BOXES = 5000
"""On one shelf."""
MOST_DEVICES = 50
MOST_READ_TOKENS = 20
"""Of one tank or one room."""
MOST_MEMBERS, MOST_INVITES = 50, 20
MOST_PHOTOS, PHOTO_BYTES, PHOTO_BYTES_OF_GUEST = 300, 300_000_000, 15_000_000
"""Photographs of one tank; bytes of all of an account, and of a guest or a visit."""
ENTRIES_A_DAY = 25_000
"""Of one tank: a probe that writes every four seconds."""


@dataclass
class OverQuota(Exception):
    """A quota was exceeded.

    title, remedy: as a keeper reads them; wait_s: s until it would be let through, where waiting helps.
    """

    title: str
    remedy: str
    wait_s: int | None = None


def too_many_rooms() -> OverQuota:
    """The refusal of one room more."""
    return OverQuota("Too many rooms", f"An account may have {MOST_ROOMS}. Take one away first; its tanks stay.")


def too_many_boxes() -> OverQuota:
    """The refusal of one box more on a shelf."""
    return OverQuota("Too many boxes", f"A shelf holds {MOST_BOXES:,}. Take some off first; tanks keep their figures.")


def too_many_tanks() -> OverQuota:
    """The refusal of one tank more."""
    return OverQuota(
        "Too many tanks",
        f"An account may have {MOST_TANKS}, those set aside with them. Remove some first; what they hold can be taken"
        " out as a file.",
    )


def too_many_devices() -> OverQuota:
    """The refusal of one device more."""
    return OverQuota(
        "Too many devices", f"A tank or a room may have {MOST_DEVICES}. Take one away that writes no more."
    )


def too_many_read_tokens() -> OverQuota:
    """The refusal of one reading token more."""
    return OverQuota("Too many tokens", f"An account may have {MOST_READ_TOKENS}. Revoke one that nothing reads with.")


def too_many_photos() -> OverQuota:
    """The refusal of one photograph more."""
    return OverQuota(
        "No room for more photographs",
        f"A tank holds {MOST_PHOTOS}, an account {PHOTO_BYTES // 1_000_000} MB, without an account"
        f" {PHOTO_BYTES_OF_GUEST // 1_000_000} MB. Take some away first.",
    )


def too_many_members() -> OverQuota:
    """The refusal of one member more."""
    return OverQuota("Too many hands", "Take an open invitation back, or end somebody's helping, first.")


def too_many_entries(wait_s: int) -> OverQuota:
    """The refusal of one entry more today. wait_s: seconds until entries are accepted again."""
    return OverQuota(
        "Too many entries in a day",
        f"A tank takes {ENTRIES_A_DAY:,} entries in 24 hours. Nothing of this was written; let the device send less"
        " often, or go on later.",
        wait_s,
    )
