"""A lesson on several tanks side by side counts once: with the first of them. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Every result there is counts."""
    migrator.sql("ALTER TABLE practice_result ADD COLUMN IF NOT EXISTS counts TINYINT(1) NOT NULL DEFAULT 1")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop it."""
    migrator.sql("ALTER TABLE practice_result DROP COLUMN IF EXISTS counts")
