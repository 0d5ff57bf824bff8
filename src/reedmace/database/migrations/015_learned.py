"""Relations of typical boxes learned from this installation's keepers, and who does not take part. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the table and the column."""
    migrator.sql("ALTER TABLE account ADD COLUMN IF NOT EXISTS contributes BOOL NOT NULL DEFAULT TRUE")
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS learned_boxes (
            id TINYINT UNSIGNED PRIMARY KEY,
            body JSON NOT NULL,
            made_at DATETIME(6) NOT NULL
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql("ALTER TABLE entry ADD KEY IF NOT EXISTS entry_kind_at (kind, written_at)")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("ALTER TABLE entry DROP KEY IF EXISTS entry_kind_at")
    migrator.sql("DROP TABLE IF EXISTS learned_boxes")
    migrator.sql("ALTER TABLE account DROP COLUMN IF EXISTS contributes")
