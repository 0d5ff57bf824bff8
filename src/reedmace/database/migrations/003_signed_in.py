"""Browsers that are signed in, so that signing out ends it here and not only in the browser. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the table."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS signed_in (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            token_hash CHAR(64) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY signed_in_token (token_hash),
            KEY signed_in_account (account_id, made_at),
            CONSTRAINT signed_in_account_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    # It ended all other sessions at a change of password; the rows above do.
    migrator.sql("ALTER TABLE account DROP COLUMN IF EXISTS stamp")


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Take it away again."""
    migrator.sql("ALTER TABLE account ADD COLUMN IF NOT EXISTS stamp CHAR(32) NOT NULL DEFAULT ''")
    migrator.sql("DROP TABLE IF EXISTS signed_in")
