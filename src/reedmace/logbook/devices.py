"""What a device's reading means to the logbook."""

from typing import Annotated, Literal

from pydantic import AwareDatetime

from reedmace.core.working import Part, number
from reedmace.logbook.entries import Key, Outage, TimedFlow
from reedmace.logbook.standing import Standing

DeviceKind = Literal["flow-meter", "smart-plug"]
STOPPED_W = 0.5
"""Under this a plug carries no running pump (memory)."""


class DeviceReading(Part):
    """One reading as a device sends it. `key` makes a repeated send harmless."""

    key: Key
    at: AwareDatetime
    flow_lph: Annotated[float, number("L/h", 0, 1e6)] | None = None
    watts: Annotated[float, number("W", 0, 5000)] | None = None


def entry_of(
    kind: str, reading: DeviceReading, standing: Standing, computed_lph: float | None
) -> TimedFlow | Outage | None:
    """The entry a reading makes, None where it tells nothing new.

    kind: of the device; reading: as sent; standing: the tank's; computed_lph: what the sums say, to calibrate by.
    A meter's flow is a flow test. A plug writes only when the power goes or comes back.
    """
    if kind == "flow-meter" and reading.flow_lph is not None:
        return TimedFlow(kind="timed-flow", method="meter", measured_lph=reading.flow_lph, computed_lph=computed_lph)
    if kind == "smart-plug" and reading.watts is not None:
        running = reading.watts >= STOPPED_W
        return Outage(kind="outage", running=running) if running != standing.filter_running else None
    return None
