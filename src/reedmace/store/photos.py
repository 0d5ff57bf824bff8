"""Photographs of an account's tanks. Whoever may see the tank sees them, whoever may log adds them."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, cast

import peewee

from reedmace.logbook.photo import Photo, PhotoOf
from reedmace.store.models import ShelfBoxRow, Tank
from reedmace.store.notice_models import BoxPhotoRow, PhotoRow
from reedmace.store.quotas import MOST_PHOTOS, PHOTO_BYTES, too_many_photos
from reedmace.store.roles import LOG
from reedmace.store.tank_queries import NotAllowed
from reedmace.store.tanks import Tanks


class NoSuchPhotoError(LookupError):
    """No photograph of that id in this tank."""


@dataclass(frozen=True)
class StoredPhoto:
    """A photograph without its picture.

    at: aware time of it; entry_key: of its logbook entry; words: as typed; shown: on the neighbour's page.
    """

    id: int
    key: str
    at: datetime
    of: PhotoOf
    entry_key: str | None
    words: str
    width: int
    height: int
    digest: str
    shown: bool


@dataclass(frozen=True)
class NewPhoto:
    """A photograph to be stored: key, aware time, what it is of, its entry, words, the picture as it is kept."""

    key: str
    at: datetime
    of: PhotoOf
    entry_key: str | None
    words: str
    picture: Photo
    shown: bool = False


_COLUMNS = (
    PhotoRow.id, PhotoRow.client_key, PhotoRow.at, PhotoRow.of, PhotoRow.entry_key, PhotoRow.words, PhotoRow.width,
    PhotoRow.height, PhotoRow.digest, PhotoRow.shown,
)  # fmt: skip


def _stored(row: PhotoRow) -> StoredPhoto:
    at = row.at.replace(tzinfo=UTC)
    of, entry = cast(PhotoOf, row.of), None if row.entry_key is None else row.entry_key.strip()
    return StoredPhoto(
        row.id, row.client_key.strip(), at, of, entry, row.words, row.width, row.height, row.digest, bool(row.shown)
    )


def _columns(picture: Photo, now: datetime) -> dict[str, Any]:
    """Columns of a picture, of a tank or of a box."""
    return {
        "width": picture.width,
        "height": picture.height,
        "digest": picture.digest,
        "size": picture.size,
        "made_at": now.astimezone(UTC).replace(tzinfo=None),
        "image": picture.image,
        "thumb": picture.thumb,
    }


class Photos:
    """Queries on photographs. tanks: the keeper's, by whose rights all is allowed."""

    def __init__(self, database: peewee.Database, tanks: Tanks, account_id: int) -> None:
        self._database, self._tanks, self._account_id = database, tanks, account_id

    def all(self, tank_id: int) -> list[StoredPhoto]:
        """Photographs of a tank, oldest first. Raises NoSuchTank."""
        self._tanks.get(tank_id)
        rows = PhotoRow.select(*_COLUMNS).where(PhotoRow.tank == tank_id).order_by(PhotoRow.at, PhotoRow.id)
        return [_stored(row) for row in rows.bind(self._database)]

    def add(
        self, tank_id: int, new: NewPhoto, now: datetime, most_bytes: int = PHOTO_BYTES
    ) -> tuple[StoredPhoto, bool]:
        """Store a photograph once; (it, whether it is new). Raises NoSuchTank, NotAllowed, OverQuota.

        now: aware time; most_bytes: of all of the account.
        """
        self._allow(tank_id)
        twin = self._find((PhotoRow.tank == tank_id) & (PhotoRow.client_key == new.key))
        if twin is not None:
            return twin, False
        picture = new.picture
        self._hold_to_quota(tank_id, picture.size, most_bytes)
        values: dict[str, Any] = {
            "tank": tank_id,
            "client_key": new.key,
            "at": new.at.astimezone(UTC).replace(tzinfo=None),
            "of": new.of,
            "entry_key": new.entry_key,
            "words": new.words,
            "shown": new.shown,
            "by_account": self._account_id,
            **_columns(picture, now),
        }
        # The same key at the same moment from another tab is the same photograph.
        PhotoRow.insert(values).on_conflict_ignore().bind(self._database).execute()
        made = self._find((PhotoRow.tank == tank_id) & (PhotoRow.client_key == new.key))
        if made is None:
            raise NoSuchPhotoError
        return made, True

    def picture(self, tank_id: int, photo_id: int, *, small: bool) -> tuple[bytes, str]:
        """JPEG bytes and digest of one. Raises NoSuchTank, NoSuchPhotoError."""
        self._tanks.get(tank_id)
        mine = (PhotoRow.id == photo_id) & (PhotoRow.tank == tank_id)
        column = PhotoRow.thumb if small else PhotoRow.image
        row = PhotoRow.select(column, PhotoRow.digest).where(mine).bind(self._database).first()
        if row is None:
            raise NoSuchPhotoError
        return bytes(row.thumb if small else row.image), row.digest

    def bundled(self, tank_id: int) -> Iterator[tuple[StoredPhoto, bytes]]:
        """Each photograph of a tank with its picture, read one at a time. Raises NoSuchTank."""
        for photo in self.all(tank_id):
            yield photo, self.picture(tank_id, photo.id, small=False)[0]

    def digest(self, tank_id: int, photo_id: int) -> str:
        """Digest of one, without reading the picture. Raises as `picture`."""
        self._tanks.get(tank_id)
        found = self._find((PhotoRow.id == photo_id) & (PhotoRow.tank == tank_id))
        if found is None:
            raise NoSuchPhotoError
        return found.digest

    def show(self, tank_id: int, photo_id: int, *, shown: bool) -> StoredPhoto:
        """Choose whether one stands on the neighbour's page. Raises NoSuchTank, NotAllowed, NoSuchPhotoError."""
        self._tanks.allow_owner(tank_id)
        mine = (PhotoRow.id == photo_id) & (PhotoRow.tank == tank_id)
        PhotoRow.update(shown=shown).where(mine).bind(self._database).execute()
        found = self._find(mine)
        if found is None:
            raise NoSuchPhotoError
        return found

    def remove(self, tank_id: int, photo_id: int) -> None:
        """Delete one for good. Raises NoSuchTank, NotAllowed, NoSuchPhotoError."""
        self._allow(tank_id)
        mine = (PhotoRow.id == photo_id) & (PhotoRow.tank == tank_id)
        role = self._tanks.role(tank_id)
        if role == "helper":
            mine &= PhotoRow.by_account == self._account_id
        if not PhotoRow.delete().where(mine).bind(self._database).execute():
            raise NoSuchPhotoError

    def _hold_to_quota(self, tank_id: int, size: int, most_bytes: int) -> None:
        owner = self._tanks.get(tank_id).owner_id
        of_tank = PhotoRow.select().where(PhotoRow.tank == tank_id).bind(self._database).count()
        if of_tank >= MOST_PHOTOS or held_bytes(self._database, owner) + size > most_bytes:
            raise too_many_photos()

    def _allow(self, tank_id: int) -> None:
        role = self._tanks.role(tank_id)
        if role is not None and role not in LOG:
            raise NotAllowed

    def _find(self, which: peewee.Expression) -> StoredPhoto | None:
        row = PhotoRow.select(*_COLUMNS).where(which).bind(self._database).first()
        return None if row is None else _stored(row)


def shown_photos(database: peewee.Database, tank_id: int) -> list[StoredPhoto]:
    """The photographs of a tank that its keeper put on the neighbour's page, oldest first."""
    mine = (PhotoRow.tank == tank_id) & (PhotoRow.shown == True)  # noqa: E712, SQL
    rows = PhotoRow.select(*_COLUMNS).where(mine).order_by(PhotoRow.at, PhotoRow.id)
    return [_stored(row) for row in rows.bind(database)]


def held_bytes(database: peewee.Database, account_id: int) -> int:
    """Bytes of all photographs of an account, of its tanks and of the boxes on its shelf."""
    tanks = PhotoRow.tank.in_(Tank.select(Tank.id).where(Tank.account == account_id))
    boxes = BoxPhotoRow.box.in_(ShelfBoxRow.select(ShelfBoxRow.id).where(ShelfBoxRow.account == account_id))
    total = peewee.fn.COALESCE
    of_tanks = PhotoRow.select(total(peewee.fn.SUM(PhotoRow.size), 0)).where(tanks).bind(database).scalar()
    of_boxes = BoxPhotoRow.select(total(peewee.fn.SUM(BoxPhotoRow.size), 0)).where(boxes).bind(database).scalar()
    return int(of_tanks) + int(of_boxes)


class BoxPhotos:
    """Photographs of the boxes on one account's shelf, one each."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database, self._account_id = database, account_id

    def digests(self) -> dict[int, str]:
        """Digest of each box's photograph, by its number."""
        mine = BoxPhotoRow.box.in_(ShelfBoxRow.select(ShelfBoxRow.id).where(ShelfBoxRow.account == self._account_id))
        rows = BoxPhotoRow.select(BoxPhotoRow.box, BoxPhotoRow.digest).where(mine).bind(self._database)
        return {row.box_id: row.digest for row in rows}

    def put(self, box_id: int, picture: Photo, now: datetime, most_bytes: int) -> str:
        """Store or replace one; its digest. Raises NoSuchPhotoError where the box is not theirs, OverQuota."""
        self._check_box(box_id)
        replaced = BoxPhotoRow.select(BoxPhotoRow.size).where(BoxPhotoRow.box == box_id).bind(self._database).first()
        held = held_bytes(self._database, self._account_id) - (0 if replaced is None else replaced.size)
        if held + picture.size > most_bytes:
            raise too_many_photos()
        columns = {"box": box_id, **_columns(picture, now)}
        insert = BoxPhotoRow.insert(columns).on_conflict_replace()
        insert.bind(self._database).execute()
        return picture.digest

    def picture(self, box_id: int, *, small: bool) -> tuple[bytes, str]:
        """JPEG bytes and digest. Raises NoSuchPhotoError."""
        self._check_box(box_id)
        row = BoxPhotoRow.select().where(BoxPhotoRow.box == box_id).bind(self._database).first()
        if row is None:
            raise NoSuchPhotoError
        return bytes(row.thumb if small else row.image), row.digest

    def remove(self, box_id: int) -> None:
        """Delete one for good. Raises NoSuchPhotoError."""
        self._check_box(box_id)
        if not BoxPhotoRow.delete().where(BoxPhotoRow.box == box_id).bind(self._database).execute():
            raise NoSuchPhotoError

    def _check_box(self, box_id: int) -> None:
        mine = (ShelfBoxRow.id == box_id) & (ShelfBoxRow.account == self._account_id)
        if not ShelfBoxRow.select().where(mine).bind(self._database).exists():
            raise NoSuchPhotoError
