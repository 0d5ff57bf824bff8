"""Series of an entry, computed by the database; indexes for the newest of each and for corrections. Frozen."""

from typing import Any


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Add the column, filled for every entry there is, and the indexes."""
    migrator.sql(
        """
        ALTER TABLE entry
            ADD COLUMN IF NOT EXISTS series VARCHAR(12) CHARACTER SET ascii AS (
                CASE
                    WHEN kind = 'timed-flow' THEN 'flow'
                    WHEN kind <> 'reading' THEN ''
                    WHEN COALESCE(
                        JSON_VALUE(body, '$.ammonia_ppm'), JSON_VALUE(body, '$.nitrite_ppm'),
                        JSON_VALUE(body, '$.nitrate_ppm'), JSON_VALUE(body, '$.kh_dkh'),
                        JSON_VALUE(body, '$.phosphate_ppm'), JSON_VALUE(body, '$.salinity_g_kg')
                    ) IS NULL THEN 'probe'
                    ELSE 'test'
                END
            ) PERSISTENT,
            ADD KEY IF NOT EXISTS entry_series (tank_id, series, at, id),
            ADD KEY IF NOT EXISTS entry_supersedes (tank_id, supersedes_id)
        """
    )


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Drop them again."""
    migrator.sql(
        "ALTER TABLE entry DROP KEY IF EXISTS entry_supersedes, DROP KEY IF EXISTS entry_series,"
        " DROP COLUMN IF EXISTS series"
    )
