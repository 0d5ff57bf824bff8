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
    invited_by,
    make_view_link,
    revoke_view_link,
    view_link_since,
    viewed_tank,
)
from reedmace.store.quotas import OverQuota
from reedmace.store.roles import Role
from reedmace.store.rooms import KeptRoom, NoSuchRoom, RoomMoved, Rooms
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
from reedmace.store.tanks import KEPT_FOR, Tanks

__all__ = [
    "INVITED_FOR",
    "KEPT_FOR",
    "MIGRATE_S",
    "SIGNED_IN_FOR",
    "SIGN_UPS_AN_HOUR",
    "Accounts",
    "AllBusy",
    "ArchivedTank",
    "Aside",
    "Device",
    "Devices",
    "EmailTaken",
    "EntryFilter",
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
    "TankName",
    "Tanks",
    "TooManyAttempts",
    "by_token",
    "connect",
    "invited_by",
    "make_view_link",
    "migrate",
    "revoke_view_link",
    "view_link_since",
    "viewed_tank",
]
