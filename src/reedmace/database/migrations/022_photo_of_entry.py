"""Photographs belong to entries of the logbook, and boxes of a shelf have one each. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column and the table."""
    migrator.sql("ALTER TABLE photo ADD COLUMN IF NOT EXISTS entry_key CHAR(64) NULL AFTER of")
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS box_photo (
            box_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
            digest CHAR(64) NOT NULL,
            size INT UNSIGNED NOT NULL,
            width SMALLINT UNSIGNED NOT NULL,
            height SMALLINT UNSIGNED NOT NULL,
            made_at DATETIME(6) NOT NULL,
            image MEDIUMBLOB NOT NULL,
            thumb MEDIUMBLOB NOT NULL,
            CONSTRAINT box_photo_fk FOREIGN KEY (box_id) REFERENCES shelf_box (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("DROP TABLE IF EXISTS box_photo")
    migrator.sql("ALTER TABLE photo DROP COLUMN IF EXISTS entry_key")
