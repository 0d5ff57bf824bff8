"""Notices that go out by mail, each account's choice of them, confirmed addresses, jobs of the worker. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column and the tables."""
    migrator.sql("ALTER TABLE account ADD COLUMN IF NOT EXISTS confirmed_at DATETIME(6) NULL")
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS notice_choice (
            account_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
            body TEXT NOT NULL,
            next_check DATETIME(6) NOT NULL,
            KEY notice_choice_check (next_check),
            CONSTRAINT notice_choice_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS notice (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            once_key VARCHAR(80) NOT NULL,
            kind VARCHAR(12) NOT NULL,
            tank_id BIGINT UNSIGNED NULL,
            body TEXT NOT NULL,
            state VARCHAR(8) NOT NULL,
            due_at DATETIME(6) NOT NULL,
            tries SMALLINT UNSIGNED NOT NULL DEFAULT 0,
            claim CHAR(32) NULL,
            claimed_until DATETIME(6) NULL,
            error VARCHAR(300) NOT NULL DEFAULT '',
            made_at DATETIME(6) NOT NULL,
            done_at DATETIME(6) NULL,
            UNIQUE KEY notice_once (account_id, once_key),
            KEY notice_due (state, due_at),
            KEY notice_claim (claim),
            CONSTRAINT notice_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS job (
            name VARCHAR(40) NOT NULL PRIMARY KEY,
            due_at DATETIME(6) NOT NULL
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("DROP TABLE IF EXISTS job")
    migrator.sql("DROP TABLE IF EXISTS notice")
    migrator.sql("DROP TABLE IF EXISTS notice_choice")
    migrator.sql("ALTER TABLE account DROP COLUMN IF EXISTS confirmed_at")
