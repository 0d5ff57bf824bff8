"""Count of writes to a tank's logbook, the row where two concurrent writers collide. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """A count, nought for every tank there is."""
    migrator.sql("ALTER TABLE tank ADD COLUMN IF NOT EXISTS writes BIGINT UNSIGNED NOT NULL DEFAULT 0")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Gone again."""
    migrator.sql("ALTER TABLE tank DROP COLUMN IF EXISTS writes")
