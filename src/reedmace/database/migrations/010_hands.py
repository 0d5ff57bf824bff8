"""More than one pair of hands: households, invitations, links to look only, and who wrote an entry. Frozen."""

from typing import Any

_TABLES = (
    """
    CREATE TABLE IF NOT EXISTS member (
        id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
        owner_id BIGINT UNSIGNED NOT NULL,
        account_id BIGINT UNSIGNED NOT NULL,
        role VARCHAR(10) NOT NULL,
        made_at DATETIME(6) NOT NULL,
        UNIQUE KEY member_once (owner_id, account_id),
        KEY member_account (account_id),
        CONSTRAINT member_owner_fk FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE,
        CONSTRAINT member_account_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
    """,
    """
    CREATE TABLE IF NOT EXISTS invite (
        id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
        owner_id BIGINT UNSIGNED NOT NULL,
        role VARCHAR(10) NOT NULL,
        token_hash CHAR(64) NOT NULL,
        made_at DATETIME(6) NOT NULL,
        UNIQUE KEY invite_hash (token_hash),
        CONSTRAINT invite_owner_fk FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
    """,
    """
    CREATE TABLE IF NOT EXISTS look_link (
        id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
        tank_id BIGINT UNSIGNED NOT NULL,
        token_hash CHAR(64) NOT NULL,
        made_at DATETIME(6) NOT NULL,
        UNIQUE KEY look_link_hash (token_hash),
        UNIQUE KEY look_link_tank (tank_id),
        CONSTRAINT look_link_fk FOREIGN KEY (tank_id) REFERENCES tank (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
    """,
    "ALTER TABLE entry ADD COLUMN IF NOT EXISTS by_account BIGINT UNSIGNED NULL",
)


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Make the tables, and the column of who wrote."""
    for text in _TABLES:
        migrator.sql(text)


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    for text in (
        "DROP TABLE IF EXISTS look_link",
        "DROP TABLE IF EXISTS invite",
        "DROP TABLE IF EXISTS member",
        "ALTER TABLE entry DROP COLUMN IF EXISTS by_account",
    ):
        migrator.sql(text)
