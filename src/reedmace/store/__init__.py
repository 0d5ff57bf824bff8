"""Storage: peewee models, versioned migrations, and queries."""

from reedmace.store.accounts import GUEST_FOR, SIGN_UPS_AN_HOUR, SIGNED_IN_FOR, Accounts
from reedmace.store.attempts import TooManyAttempts
from reedmace.store.devices import Device, Devices, NoSuchDevice, by_token
from reedmace.store.households import (
    INVITED_FOR,
    HouseholdMember,
    Households,
    NoSuchInvite,
    invited_by,
    make_view_link,
    revoke_view_link,
    view_link_since,
    viewed_tank,
)
from reedmace.store.keepers import EmailTaken
from reedmace.store.learned import contributes, learned_boxes, set_contributes
from reedmace.store.notices import Notice, Notices, is_due
from reedmace.store.practice import LessonResult, PracticeTanks, practice_at
from reedmace.store.quotas import OverQuota
from reedmace.store.read_tokens import NoSuchReadToken, ReadToken, ReadTokens, read_token_of
from reedmace.store.roles import Role
from reedmace.store.rooms import KeptRoom, NoSuchRoom, RoomMoved, Rooms
from reedmace.store.shelf import NoSuchBox, Shelf, shown_shelf
from reedmace.store.sweep import sweep
from reedmace.store.tank_queries import (
    ArchivedTank,
    Aside,
    EntryFilter,
    NoSuchEntry,
    NoSuchTank,
    NotAllowed,
    PlanMoved,
    TankName,
)
from reedmace.store.tank_snapshots import SnapshotCache
from reedmace.store.tank_states import StateCache
from reedmace.store.tanks import KEPT_FOR, Tanks

__all__ = [
    "GUEST_FOR",
    "INVITED_FOR",
    "KEPT_FOR",
    "SIGNED_IN_FOR",
    "SIGN_UPS_AN_HOUR",
    "Accounts",
    "ArchivedTank",
    "Aside",
    "Device",
    "Devices",
    "EmailTaken",
    "EntryFilter",
    "HouseholdMember",
    "Households",
    "KeptRoom",
    "LessonResult",
    "NoSuchBox",
    "NoSuchDevice",
    "NoSuchEntry",
    "NoSuchInvite",
    "NoSuchReadToken",
    "NoSuchRoom",
    "NoSuchTank",
    "NotAllowed",
    "Notice",
    "Notices",
    "OverQuota",
    "PlanMoved",
    "PracticeTanks",
    "ReadToken",
    "ReadTokens",
    "Role",
    "RoomMoved",
    "Rooms",
    "Shelf",
    "SnapshotCache",
    "StateCache",
    "TankName",
    "Tanks",
    "TooManyAttempts",
    "by_token",
    "contributes",
    "invited_by",
    "is_due",
    "learned_boxes",
    "make_view_link",
    "practice_at",
    "read_token_of",
    "revoke_view_link",
    "set_contributes",
    "shown_shelf",
    "sweep",
    "view_link_since",
    "viewed_tank",
]
