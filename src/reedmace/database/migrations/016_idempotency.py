"""Who made a device; answers of creating calls, kept so that none is made twice; a key for removed tanks. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column and the table."""
    migrator.sql("ALTER TABLE tank ADD KEY IF NOT EXISTS tank_aside (aside, aside_at)")
    migrator.sql("ALTER TABLE device ADD COLUMN IF NOT EXISTS made_by BIGINT UNSIGNED NULL")
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS idempotent_answer (
            account_id BIGINT UNSIGNED NOT NULL,
            client_key CHAR(64) NOT NULL,
            path VARCHAR(200) NOT NULL,
            status SMALLINT UNSIGNED NOT NULL,
            body MEDIUMTEXT NOT NULL,
            made_at DATETIME(6) NOT NULL,
            PRIMARY KEY (account_id, client_key),
            KEY idempotent_answer_at (made_at),
            CONSTRAINT idempotent_answer_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("DROP TABLE IF EXISTS idempotent_answer")
    migrator.sql("ALTER TABLE device DROP COLUMN IF EXISTS made_by")
    migrator.sql("ALTER TABLE tank DROP KEY IF EXISTS tank_aside")
