"""Codes by which a keeper who lost the password comes back in; only their hashes are kept. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS recovery_code (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            code_hash CHAR(64) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY recovery_code_hash (code_hash),
            KEY recovery_code_account (account_id),
            CONSTRAINT recovery_code_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop it again."""
    migrator.sql("DROP TABLE IF EXISTS recovery_code")
