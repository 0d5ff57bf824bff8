"""Storage: peewee models, versioned migrations, and queries."""

from playhouse.pool import MaxConnectionsExceeded as AllBusy

from reedmace.store.accounts import SIGN_UPS_AN_HOUR, SIGNED_IN_FOR, Accounts, EmailTaken, TooManyAttempts
from reedmace.store.database import MIGRATE_S, connect, migrate
from reedmace.store.devices import Device, Devices, NoSuchDevice, by_token
from reedmace.store.households import (
    INVITED_FOR,
    HouseholdMember,
    Households,
    NoSuchInvite,
    Role,
    revoke_view_link,
    invited_by,
    make_view_link,
    view_link_since,
    viewed_tank,
)
from reedmace.store.quotas import OverQuota
from reedmace.store.rooms import KeptRoom, NoSuchRoom, RoomMoved, Rooms
from reedmace.store.tank_queries import (
    Aside,
    NoSuchEntry,
    NoSuchTank,
    NotAllowed,
    PlanMoved,
    ArchivedTank,
    TankName,
    EntryFilter,
)
from reedmace.store.tanks import KEPT_FOR, Tanks

__all__ = [
    "INVITED_FOR",
    "KEPT_FOR",
    "MIGRATE_S",
    "SIGNED_IN_FOR",
    "SIGN_UPS_AN_HOUR",
    "Accounts",
    "AllBusy",
    "Aside",
    "Device",
    "Devices",
    "EmailTaken",
    "HouseholdMember",
    "Households",
    "KeptRoom",
    "NoSuchDevice",
    "NoSuchEntry",
    "NoSuchInvite",
    "NoSuchRoom",
    "NoSuchTank",
    "NotAllowed",
    "OverQuota",
    "PlanMoved",
    "Role",
    "RoomMoved",
    "Rooms",
    "ArchivedTank",
    "TankName",
    "Tanks",
    "TooManyAttempts",
    "EntryFilter",
    "by_token",
    "connect",
    "revoke_view_link",
    "invited_by",
    "make_view_link",
    "view_link_since",
    "viewed_tank",
    "migrate",
]
