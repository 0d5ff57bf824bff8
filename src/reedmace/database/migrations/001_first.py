"""Accounts, sign-in attempts, tanks and their entries. Frozen: later changes come as later files."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the first tables."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS account (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            email VARCHAR(254) NOT NULL,
            password_hash VARCHAR(255) NOT NULL,
            stamp CHAR(32) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY account_email (email)
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS sign_in_failure (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            who CHAR(64) NOT NULL,
            at DATETIME(6) NOT NULL,
            KEY sign_in_failure_who_at (who, at)
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS tank (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            name VARCHAR(80) NOT NULL,
            made_at DATETIME(6) NOT NULL,
            KEY tank_account (account_id, id),
            CONSTRAINT tank_account_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS entry (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            tank_id BIGINT UNSIGNED NOT NULL,
            client_key VARCHAR(64) NOT NULL,
            kind VARCHAR(32) NOT NULL,
            at DATETIME(6) NOT NULL,
            written_at DATETIME(6) NOT NULL,
            supersedes_id BIGINT UNSIGNED NULL,
            body JSON NOT NULL,
            UNIQUE KEY entry_key (tank_id, client_key),
            KEY entry_tank_id (tank_id, id),
            KEY entry_tank_at (tank_id, at),
            CONSTRAINT entry_tank_fk FOREIGN KEY (tank_id) REFERENCES tank (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Take them away again, children first."""
    for table in ("entry", "tank", "sign_in_failure", "account"):
        migrator.sql(f"DROP TABLE IF EXISTS {table}")
