"""Rooms of many tanks: which stand where, and their air. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS room (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            name VARCHAR(80) NOT NULL,
            plan JSON NOT NULL,
            version INT UNSIGNED NOT NULL,
            made_at DATETIME(6) NOT NULL,
            KEY room_account (account_id),
            CONSTRAINT room_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop it again."""
    migrator.sql("DROP TABLE IF EXISTS room")
