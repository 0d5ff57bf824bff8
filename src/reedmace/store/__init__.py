"""Keeping: peewee models, versioned migrations, and the queries the API asks."""

from reedmace.store.accounts import Accounts, EmailTaken, TooManyAttempts
from reedmace.store.database import connect, migrate
from reedmace.store.tanks import NoSuchEntry, NoSuchTank, PlanMoved, Tanks

__all__ = [
    "Accounts",
    "EmailTaken",
    "NoSuchEntry",
    "NoSuchTank",
    "PlanMoved",
    "Tanks",
    "TooManyAttempts",
    "connect",
    "migrate",
]
