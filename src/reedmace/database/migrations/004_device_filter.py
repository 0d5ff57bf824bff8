"""A device may stand at one filter of several. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column."""
    migrator.sql("ALTER TABLE device ADD COLUMN IF NOT EXISTS filter_key VARCHAR(40) NULL")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Take it away again."""
    migrator.sql("ALTER TABLE device DROP COLUMN IF EXISTS filter_key")
