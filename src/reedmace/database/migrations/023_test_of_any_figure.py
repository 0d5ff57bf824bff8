"""A reading is a kit's test where it has any figure but those a probe writes, also one that comes later. Frozen."""

from typing import Any

_SERIES = """
    ALTER TABLE entry MODIFY COLUMN series VARCHAR(12) CHARACTER SET ascii AS (
        CASE
            WHEN kind = 'timed-flow' THEN 'flow'
            WHEN kind <> 'reading' THEN ''
            WHEN {test} THEN 'test'
            ELSE 'probe'
        END
    ) PERSISTENT
"""


def migrate(migrator: Any, database: Any, **_: Any) -> None:
    """Derive the series anew for every entry there is."""
    figures = (
        "JSON_REMOVE(body, '$.kind', '$.basis', '$.off_scale', '$.between', '$.other_kit', '$.ph', '$.temperature_c')"
    )
    migrator.sql(_SERIES.format(test=f"{figures} REGEXP ': *-?[0-9]'"))


def rollback(migrator: Any, database: Any, **_: Any) -> None:
    """Derive it as before."""
    names = ("ammonia_ppm", "nitrite_ppm", "nitrate_ppm", "kh_dkh", "phosphate_ppm", "salinity_g_kg")
    figures = ", ".join(f"JSON_VALUE(body, '$.{name}')" for name in names)
    migrator.sql(_SERIES.format(test=f"COALESCE({figures}) IS NOT NULL"))
