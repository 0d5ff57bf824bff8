"""Keys by time, so that sweeping old sessions and failures locks no others. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the keys."""
    migrator.sql("ALTER TABLE signed_in ADD KEY IF NOT EXISTS signed_in_made (made_at)")
    migrator.sql("ALTER TABLE sign_in_failure ADD KEY IF NOT EXISTS sign_in_failure_at (at)")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("ALTER TABLE signed_in DROP KEY IF EXISTS signed_in_made")
    migrator.sql("ALTER TABLE sign_in_failure DROP KEY IF EXISTS sign_in_failure_at")
