"""Classes on practice lessons, and the learners' places in them. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the tables."""
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS practice_class (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            account_id BIGINT UNSIGNED NOT NULL,
            code CHAR(8) NOT NULL,
            lesson VARCHAR(40) NOT NULL,
            seed INT UNSIGNED NULL,
            coach VARCHAR(12) NOT NULL,
            stopped BOOL NOT NULL DEFAULT FALSE,
            uncovered BOOL NOT NULL DEFAULT FALSE,
            made_at DATETIME(6) NOT NULL,
            UNIQUE KEY practice_class_code (code),
            KEY practice_class_made (made_at),
            CONSTRAINT practice_class_fk FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )
    migrator.sql(
        """
        CREATE TABLE IF NOT EXISTS practice_seat (
            id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
            class_id BIGINT UNSIGNED NOT NULL,
            tank_id BIGINT UNSIGNED NOT NULL,
            name VARCHAR(40) NOT NULL,
            UNIQUE KEY practice_seat_tank (tank_id),
            KEY practice_seat_class (class_id),
            CONSTRAINT practice_seat_class_fk FOREIGN KEY (class_id) REFERENCES practice_class (id) ON DELETE CASCADE,
            CONSTRAINT practice_seat_tank_fk FOREIGN KEY (tank_id) REFERENCES tank (id) ON DELETE CASCADE
        ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql("DROP TABLE IF EXISTS practice_seat")
    migrator.sql("DROP TABLE IF EXISTS practice_class")
