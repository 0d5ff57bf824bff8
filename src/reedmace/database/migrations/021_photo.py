"""Photographs of tanks. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS photo (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            tank_id BIGINT UNSIGNED NOT NULL,
            client_key CHAR(64) NOT NULL,
            at DATETIME(6) NOT NULL,
            of VARCHAR(16) NOT NULL,
            words VARCHAR(300) NOT NULL,
            width SMALLINT UNSIGNED NOT NULL,
            height SMALLINT UNSIGNED NOT NULL,
            digest CHAR(64) NOT NULL,
            size INT UNSIGNED NOT NULL,
            shown BOOL NOT NULL DEFAULT 0,
            by_account BIGINT UNSIGNED NULL,
            made_at DATETIME(6) NOT NULL,
            image MEDIUMBLOB NOT NULL,
            thumb MEDIUMBLOB NOT NULL,
            UNIQUE KEY photo_once (tank_id, client_key),
            KEY photo_tank_at (tank_id, at),
            CONSTRAINT photo_fk FOREIGN KEY (tank_id) REFERENCES tank (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop it again."""
    migrator.sql("DROP TABLE IF EXISTS photo")
