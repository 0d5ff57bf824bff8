"""A keeper reads in units of their own. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column: JSON, or nothing for who never chose."""
    migrator.sql("ALTER TABLE account ADD COLUMN IF NOT EXISTS units TEXT NULL")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Take it away again."""
    migrator.sql("ALTER TABLE account DROP COLUMN IF EXISTS units")
