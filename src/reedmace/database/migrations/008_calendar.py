"""The secret link of an account's calendar; only its hash is kept. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS calendar_link (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            token_hash CHAR(64) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY calendar_link_hash (token_hash),
            UNIQUE KEY calendar_link_account (account_id),
            CONSTRAINT calendar_link_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop it again."""
    migrator.sql("DROP TABLE IF EXISTS calendar_link")
