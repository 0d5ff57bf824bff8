"""Boxes an account has seen or owns, and the link that shows them to others. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the tables."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS shelf_box (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            client_key CHAR(64) NOT NULL,
            body JSON NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY shelf_box_key (account_id, client_key),
            CONSTRAINT shelf_box_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS shelf_link (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            token_hash CHAR(64) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY shelf_link_hash (token_hash),
            UNIQUE KEY shelf_link_account (account_id),
            CONSTRAINT shelf_link_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("DROP TABLE IF EXISTS shelf_link")
    migrator.sql("DROP TABLE IF EXISTS shelf_box")
