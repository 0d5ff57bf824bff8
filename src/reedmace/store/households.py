"""Households: members with a role, invitations by link, and public view links."""

import hashlib
import secrets
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import cast

import peewee

from reedmace.store.models import Account, DeviceRow, Invite, LookLink, Member, Tank
from reedmace.store.quotas import MOST_INVITES, MOST_MEMBERS, too_many_members
from reedmace.store.roles import MANAGE, Role

INVITED_FOR = timedelta(days=7)


class NoSuchInvite(LookupError):
    """The invitation was used, revoked, expired, or never existed."""


@dataclass(frozen=True)
class HouseholdMember:
    """A member: the row's id, the other account's email address and its role."""

    id: int
    email: str
    role: Role
    account_id: int


def _hash(kind: str, token: str) -> str:
    return hashlib.sha256(f"{kind} {token}".encode()).hexdigest()


def _naive(at: datetime) -> datetime:
    return at.astimezone(UTC).replace(tzinfo=None)


class Households:
    """Members of one account's household, and the households it helps in."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database = database
        self._account_id = account_id

    def members(self) -> list[HouseholdMember]:
        """Members, in the order they joined."""
        rows = (
            Member.select(Member, Account)
            .join(Account, on=(Member.account == Account.id))
            .where(Member.owner == self._account_id)
            .order_by(Member.id)
        )
        return [
            HouseholdMember(r.id, r.account.email, cast(Role, r.role), r.account_id) for r in rows.bind(self._database)
        ]

    def helps(self) -> list[HouseholdMember]:
        """Households this account helps in; `account_id` is the owner's."""
        rows = (
            Member.select(Member, Account)
            .join(Account, on=(Member.owner == Account.id))
            .where(Member.account == self._account_id)
            .order_by(Member.id)
        )
        return [HouseholdMember(r.id, r.owner.email, cast(Role, r.role), r.owner_id) for r in rows.bind(self._database)]

    def invite(self, role: Role, now: datetime) -> str:
        """The token of a new invitation, valid once and for a week; only its hash is stored. Raises OverQuota."""
        old = (Invite.owner == self._account_id) & (Invite.made_at < _naive(now) - INVITED_FOR)
        Invite.delete().where(old).bind(self._database).execute()
        open_ = Invite.select().where(Invite.owner == self._account_id).bind(self._database).count()
        if open_ >= MOST_INVITES or len(self.members()) >= MOST_MEMBERS:
            raise too_many_members()
        token = secrets.token_urlsafe(24)
        new = Invite.insert(
            owner_id=self._account_id, role=role, token_hash=_hash("invite", token), made_at=_naive(now)
        )
        new.bind(self._database).execute()
        return token

    def revoke_invites(self) -> None:
        """Revoke open invitations."""
        Invite.delete().where(Invite.owner == self._account_id).bind(self._database).execute()

    def accept(self, token: str, now: datetime) -> HouseholdMember:
        """Join the household of an invitation. Raises NoSuchInvite, also for one's own."""
        with self._database.atomic():
            owner, role = invited_by(self._database, token, now)
            if owner.id == self._account_id:
                raise NoSuchInvite
            # The number of deleted rows tells whether it was still valid, so it cannot be used twice at once.
            if not Invite.delete().where(Invite.token_hash == _hash("invite", token)).bind(self._database).execute():
                raise NoSuchInvite
            both = (Member.owner == owner.id) & (Member.account == self._account_id)
            Member.delete().where(both).bind(self._database).execute()
            if role not in MANAGE:
                self._end_devices(owner.id, self._account_id)
            values = {"owner": owner.id, "account": self._account_id, "role": role, "made_at": _naive(now)}
            row = Member.insert(values).bind(self._database).execute()
        return HouseholdMember(row, owner.email, role, owner.id)

    def part(self, member_id: int) -> bool:
        """End a membership, a member's or one's own, with the devices made by it; whether there was one."""
        mine = (Member.owner == self._account_id) | (Member.account == self._account_id)
        with self._database.atomic():
            row = Member.select().where((Member.id == member_id) & mine).bind(self._database).first()
            if row is None:
                return False
            self._end_devices(row.owner_id, row.account_id)
            Member.delete().where(Member.id == member_id).bind(self._database).execute()
        return True

    def _end_devices(self, owner_id: int, account_id: int) -> None:
        """Delete the devices that an account made on another's tanks."""
        theirs = Tank.select(Tank.id).where(Tank.account == owner_id)
        ended = DeviceRow.delete().where((DeviceRow.made_by == account_id) & DeviceRow.tank.in_(theirs))
        ended.bind(self._database).execute()


def invited_by(database: peewee.Database, token: str, now: datetime) -> tuple[Account, Role]:
    """(email address, role) of an invitation. Raises NoSuchInvite."""
    row = (
        Invite.select(Invite, Account)
        .join(Account)
        .where((Invite.token_hash == _hash("invite", token)) & (Invite.made_at > _naive(now) - INVITED_FOR))
        .bind(database)
        .first()
    )
    if row is None:
        raise NoSuchInvite
    return row.owner, cast(Role, row.role)


def make_view_link(database: peewee.Database, tank_id: int, now: datetime) -> str:
    """A new view link to a tank; an older one stops working."""
    token = secrets.token_urlsafe(24)
    with database.atomic():
        LookLink.delete().where(LookLink.tank == tank_id).bind(database).execute()
        new = LookLink.insert(tank=tank_id, token_hash=_hash("look", token), made_at=_naive(now))
        new.bind(database).execute()
    return token


def view_link_since(database: peewee.Database, tank_id: int) -> datetime | None:
    """When the view link was made; None without one."""
    row = LookLink.select().where(LookLink.tank == tank_id).bind(database).first()
    return None if row is None else row.made_at.replace(tzinfo=UTC)


def revoke_view_link(database: peewee.Database, tank_id: int) -> None:
    """Revoke the view link."""
    LookLink.delete().where(LookLink.tank == tank_id).bind(database).execute()


def viewed_tank(database: peewee.Database, token: str) -> tuple[int, int] | None:
    """(account, tank) of a view link; None when it is revoked or its tank is archived."""
    row = (
        LookLink.select(LookLink, Tank)
        .join(Tank)
        .where((LookLink.token_hash == _hash("look", token)) & Tank.aside.is_null())
        .bind(database)
        .first()
    )
    return None if row is None else (row.tank.account_id, row.tank_id)
