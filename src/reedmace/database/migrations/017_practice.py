"""Practice tanks with their clock, and how lessons ended. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column, empty for a real tank, and the table."""
    migrator.sql("ALTER TABLE tank ADD COLUMN IF NOT EXISTS practice JSON NULL")
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS practice_result (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            tank_id BIGINT UNSIGNED NOT NULL,
            lesson VARCHAR(40) NOT NULL,
            seed INT UNSIGNED NOT NULL,
            won BOOL NOT NULL,
            lost INT UNSIGNED NOT NULL,
            page JSON NOT NULL,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY practice_result_tank (tank_id),
            KEY practice_result_account (account_id, lesson),
            CONSTRAINT practice_result_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("DROP TABLE IF EXISTS practice_result")
    migrator.sql("ALTER TABLE tank DROP COLUMN IF EXISTS practice")
