"""Devices that write in a tank's logbook, each with a token kept as its hash. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS device (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            tank_id BIGINT UNSIGNED NOT NULL,
            name VARCHAR(80) NOT NULL,
            kind VARCHAR(32) NOT NULL,
            token_hash CHAR(64) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY device_token (token_hash),
            KEY device_tank (tank_id, id),
            CONSTRAINT device_tank_fk FOREIGN KEY (tank_id) REFERENCES tank (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Take it away again."""
    migrator.sql("DROP TABLE IF EXISTS device")
