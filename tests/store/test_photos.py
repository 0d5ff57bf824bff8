"""Photographs of tanks and of boxes on a shelf."""

import peewee
import pytest

from reedmace.core.filter.shelf_box import ShelfBox
from reedmace.logbook.photo import Photo
from reedmace.store import Tanks
from reedmace.store.photos import BoxPhotos, NewPhoto, NoSuchPhotoError, Photos, held_bytes, shown_photos
from reedmace.store.quotas import OverQuota
from reedmace.store.shelf import Shelf
from reedmace.store.tank_queries import NoSuchTank, NotAllowed
from tests.store.conftest import NOW


def picture(digest: str = "a", size: int = 100) -> Photo:
    return Photo(image=bytes(size - 10), thumb=bytes(10), width=4, height=3, digest=digest * 64)


def new(key: str, **more: object) -> NewPhoto:
    usual = {"at": NOW, "of": "tank", "entry_key": None, "words": "", "shown": False, "picture": picture()}
    return NewPhoto(**{"key": key, **usual, **more})  # type: ignore[arg-type]


@pytest.fixture
def mine(database: peewee.Database, account) -> tuple[Photos, int, int]:
    """Queries on a new account's photographs, its tank, the account."""
    owner = account()
    tanks = Tanks(database, owner)
    return Photos(database, tanks, owner), tanks.make("Seen", NOW).id, owner


def test_one_sent_twice_is_stored_once_and_comes_back_in_two_sizes(mine) -> None:
    photos, tank, _ = mine
    first, fresh = photos.add(tank, new("photo-key-1"), NOW)
    again, fresher = photos.add(tank, new("photo-key-1", words="Other"), NOW)
    assert (fresh, fresher, again) == (True, False, first)
    assert [len(photos.picture(tank, first.id, small=small)[0]) for small in (False, True)] == [90, 10]
    assert photos.digest(tank, first.id) == "a" * 64
    assert [bytes for _, bytes in photos.bundled(tank)] == [photos.picture(tank, first.id, small=False)[0]]


def test_what_an_account_holds_is_counted_and_held_to_its_most(database: peewee.Database, mine) -> None:
    photos, tank, owner = mine
    photos.add(tank, new("photo-key-1"), NOW)
    assert held_bytes(database, owner) == 100
    with pytest.raises(OverQuota):
        photos.add(tank, new("photo-key-2"), NOW, most_bytes=199)
    photos.add(tank, new("photo-key-2"), NOW, most_bytes=200)


def test_only_what_its_owner_shows_stands_on_the_neighbours_page(database: peewee.Database, mine) -> None:
    photos, tank, _ = mine
    one, _ = photos.add(tank, new("photo-key-1"), NOW)
    assert shown_photos(database, tank) == []
    photos.show(tank, one.id, shown=True)
    assert [p.id for p in shown_photos(database, tank)] == [one.id]
    with pytest.raises(NoSuchPhotoError):
        photos.show(tank, one.id + 10**6, shown=True)


def test_a_helper_takes_away_its_own_and_a_stranger_sees_none(database: peewee.Database, mine, account) -> None:
    photos, tank, owner = mine
    helper = account()
    theirs = Photos(database, Tanks(database, helper, {owner: "helper"}), helper)
    own, _ = photos.add(tank, new("photo-key-1"), NOW)
    helped, _ = theirs.add(tank, new("photo-key-2"), NOW)
    with pytest.raises(NoSuchPhotoError):
        theirs.remove(tank, own.id)
    theirs.remove(tank, helped.id)
    with pytest.raises(NotAllowed):
        theirs.show(tank, own.id, shown=True)
    stranger = account()
    with pytest.raises(NoSuchTank):
        Photos(database, Tanks(database, stranger), stranger).all(tank)


def test_a_box_has_one_and_a_new_one_takes_the_room_of_the_old(database: peewee.Database, mine) -> None:
    _, _, owner = mine
    label = ShelfBox.model_validate({"label": {"name": "Willow", "kind": "canister", "box_lph": 700}})
    (box,) = Shelf(database, owner).put([("box-key-1", label)], NOW)
    photos = BoxPhotos(database, owner)
    photos.put(box.id, picture("a"), NOW, 150)
    # At the limit a picture can still be replaced by one as large.
    assert photos.put(box.id, picture("b"), NOW, 150) == "b" * 64
    with pytest.raises(OverQuota):
        photos.put(box.id, picture("c", 151), NOW, 150)
    assert photos.digests() == {box.id: "b" * 64}
    assert photos.picture(box.id, small=True)[1] == "b" * 64
    photos.remove(box.id)
    with pytest.raises(NoSuchPhotoError):
        photos.picture(box.id, small=True)
    with pytest.raises(NoSuchPhotoError):
        photos.put(box.id + 10**6, picture(), NOW, 150)
