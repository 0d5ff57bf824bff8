"""Members, invitations and links to look."""

from datetime import timedelta

import peewee
import pytest

from reedmace.store import Households
from reedmace.store.households import (
    INVITED_FOR,
    NoSuchInvite,
    invited_by,
    make_view_link,
    revoke_view_link,
    view_link_since,
    viewed_tank,
)
from tests.store.conftest import NOW


def test_an_invitation_brings_one_in_once_and_for_a_week(database: peewee.Database, account) -> None:
    owner, guest, third = account(), account(), account()
    house = Households(database, owner)
    token = house.invite("helper", NOW)
    with pytest.raises(NoSuchInvite):
        house.accept(token, NOW)
    with pytest.raises(NoSuchInvite):
        invited_by(database, token, NOW + INVITED_FOR + timedelta(seconds=1))
    joined = Households(database, guest).accept(token, NOW)
    assert (joined.account_id, joined.role) == (owner, "helper")
    with pytest.raises(NoSuchInvite):
        Households(database, third).accept(token, NOW)
    assert [m.account_id for m in house.members()] == [guest]
    assert [m.account_id for m in Households(database, guest).helps()] == [owner]


def test_a_new_role_takes_the_place_of_the_old_one_and_either_side_ends_it(database: peewee.Database, account) -> None:
    owner, guest = account(), account()
    house, theirs = Households(database, owner), Households(database, guest)
    for role in ("reader", "keeper"):
        theirs.accept(house.invite(role, NOW), NOW)
    assert [m.role for m in house.members()] == ["keeper"]
    assert not Households(database, account()).part(house.members()[0].id)
    assert theirs.part(theirs.helps()[0].id)
    assert house.members() == []


def test_open_invitations_are_taken_back(database: peewee.Database, account) -> None:
    house = Households(database, account())
    token = house.invite("reader", NOW)
    house.revoke_invites()
    with pytest.raises(NoSuchInvite):
        invited_by(database, token, NOW)


def test_a_link_to_look_is_one_at_a_time_and_ends_with_its_tank(database: peewee.Database, tanks) -> None:
    mine = tanks()
    tank = mine.make("Seen", NOW).id
    assert view_link_since(database, tank) is None
    old, new = (make_view_link(database, tank, NOW) for _ in range(2))
    assert viewed_tank(database, old) is None
    assert viewed_tank(database, new) is not None
    assert view_link_since(database, tank) == NOW
    mine.archive(tank, "archived", NOW)
    assert viewed_tank(database, new) is None
    mine.restore(tank, NOW)
    revoke_view_link(database, tank)
    assert viewed_tank(database, new) is None
