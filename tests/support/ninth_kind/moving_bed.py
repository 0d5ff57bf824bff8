"""A kind of filter from outside the project: a cylinder of tumbling carriers inside the tank."""

from dataclasses import replace

from reedmace.core.filter.kinds.internal import KIND as INTERNAL

KIND = replace(
    INTERNAL,
    name="moving-bed",
    title="Moving bed",
    order=90,
    prefix="internal",
    service_days=60,
)
