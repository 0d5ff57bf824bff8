"""A device may stand for a whole room: one meter on the main air pump. Frozen."""

from typing import Any

_STEPS = (
    "ALTER TABLE device ADD COLUMN IF NOT EXISTS room_id BIGINT UNSIGNED NULL",
    "ALTER TABLE device MODIFY COLUMN tank_id BIGINT UNSIGNED NULL",
    (
        "ALTER TABLE device ADD CONSTRAINT device_room_fk FOREIGN KEY IF NOT EXISTS (room_id) REFERENCES room (id) ON"
        " DELETE CASCADE"
    ),
)


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """A room's id, and no tank where there is one."""
    for text in _STEPS:
        migrator.sql(text)


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Rooms' devices go, tanks' stay."""
    for text in (
        "DELETE FROM device WHERE tank_id IS NULL",
        "ALTER TABLE device DROP FOREIGN KEY IF EXISTS device_room_fk",
        "ALTER TABLE device DROP COLUMN IF EXISTS room_id",
        "ALTER TABLE device MODIFY COLUMN tank_id BIGINT UNSIGNED NOT NULL",
    ):
        migrator.sql(text)
