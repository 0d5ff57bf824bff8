"""Keeping: peewee models, versioned migrations, and the queries the API asks."""

from playhouse.pool import MaxConnectionsExceeded as AllBusy

from reedmace.store.accounts import SIGN_UPS_AN_HOUR, SIGNED_IN_FOR, Accounts, EmailTaken, TooManyAttempts
from reedmace.store.database import connect, migrate
from reedmace.store.devices import Device, Devices, NoSuchDevice, by_token
from reedmace.store.tanks import KEPT_FOR, Aside, NoSuchEntry, NoSuchTank, PlanMoved, TankAside, Tanks, Wanted

__all__ = [
    "KEPT_FOR",
    "SIGNED_IN_FOR",
    "SIGN_UPS_AN_HOUR",
    "Accounts",
    "AllBusy",
    "Aside",
    "Device",
    "Devices",
    "EmailTaken",
    "NoSuchDevice",
    "NoSuchEntry",
    "NoSuchTank",
    "PlanMoved",
    "TankAside",
    "Tanks",
    "TooManyAttempts",
    "Wanted",
    "by_token",
    "connect",
    "migrate",
]
