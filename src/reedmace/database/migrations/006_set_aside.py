"""A tank may be set aside: archived, or removed for a day before it is gone. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the columns: how and when, both empty for a tank in use."""
    migrator.sql("ALTER TABLE tank ADD COLUMN IF NOT EXISTS aside VARCHAR(10) NULL")
    migrator.sql("ALTER TABLE tank ADD COLUMN IF NOT EXISTS aside_at DATETIME NULL")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Take them away again."""
    migrator.sql("ALTER TABLE tank DROP COLUMN IF EXISTS aside")
    migrator.sql("ALTER TABLE tank DROP COLUMN IF EXISTS aside_at")
