"""How often a tank's logbook was written to: the row that two writers cross at, on one server or on two nodes of a
cluster. Frozen.
"""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """A count, nought for every tank there is."""
    migrator.sql("ALTER TABLE tank ADD COLUMN IF NOT EXISTS writes BIGINT UNSIGNED NOT NULL DEFAULT 0")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Gone again."""
    migrator.sql("ALTER TABLE tank DROP COLUMN IF EXISTS writes")
