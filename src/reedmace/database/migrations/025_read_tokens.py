"""Tokens that only read, of an account or of one of its tanks, each with its end. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS read_token (
            id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            tank_id BIGINT UNSIGNED NULL,
            name VARCHAR(80) NOT NULL,
            token_hash CHAR(64) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            until DATETIME(6) NOT NULL,
            UNIQUE KEY read_token_hash (token_hash),
            KEY read_token_account (account_id),
            CONSTRAINT read_token_account_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE,
            CONSTRAINT read_token_tank_fk FOREIGN KEY (tank_id) REFERENCES tank (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop it again."""
    migrator.sql("DROP TABLE IF EXISTS read_token")
