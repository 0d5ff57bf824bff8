"""Logbook entries from device readings."""

from datetime import timedelta
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import number
from reedmace.core.cycle.record.log import Off
from reedmace.core.quantity.units import Basis
from reedmace.core.water_parameters import KitFigures
from reedmace.logbook.replay.current_plans import filter_plan
from reedmace.logbook.replay.entries import Key, Outage, Reading, TimedFlow
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.times import OurTime

DeviceKind = Literal["flow-meter", "smart-plug", "test-kit", "thermometer", "ph-probe"]
STOPPED_W = 0.5
"""Power below which a plug carries no running pump (memory)."""
PROBE_STEP = {"temperature_c": 0.5, "ph": 0.1}
PROBE_HOURS = 24
"""Hours between entries of a probe, apart from changes by a step."""


class DeviceReading(KitFigures):
    """One reading as a device sends it. `key` makes a repeated send harmless."""

    key: Key
    at: OurTime
    flow_lph: Annotated[float, number("L/h", 0, 1e6)] | None = None
    watts: Annotated[float, number("W", 0, 5000)] | None = None
    basis: Basis = "ion"
    off_scale: Annotated[list[Off], Field(max_length=3)] = Field(default_factory=list)


def entry_of(
    kind: str,
    reading: DeviceReading,
    state: LogbookState,
    computed_lph: float | None,
    filter_key: str | None = None,
) -> TimedFlow | Outage | Reading | None:
    """The entry of a reading, None where it adds nothing.

    kind: of the device; reading: as sent; state: the tank's; computed_lph: what the sums say, to calibrate by;
    filter_key: the filter it stands at, None for the tank's only one or all of them.
    A meter's flow is a flow test. A plug writes only when the power goes or comes back. A kit's test is a test. A probe
    writes when its figure has moved by a step, and once a day.
    """
    if kind == "flow-meter" and reading.flow_lph is not None:
        where = {"filter_key": filter_key} if filter_key else {}
        return TimedFlow(
            kind="timed-flow", method="meter", measured_lph=reading.flow_lph, computed_lph=computed_lph, **where
        )
    if kind == "smart-plug" and reading.watts is not None:
        running = reading.watts >= STOPPED_W
        before = state.filter_running if filter_key is None else state.runs(filter_key)
        return Outage(kind="outage", running=running, filter_key=filter_key) if running != before else None
    if kind == "test-kit":
        # Warmth is a thermometer's to tell.
        own = [field for field in KitFigures.model_fields if field != "temperature_c"]
        found = {f: value for f in own if (value := getattr(reading, f)) is not None}
        return Reading(kind="reading", basis=reading.basis, off_scale=reading.off_scale, **found) if found else None
    if kind in ("thermometer", "ph-probe"):
        return _probed("temperature_c" if kind == "thermometer" else "ph", reading, state)
    return None


def on_rooms_air(reading: DeviceReading, state: LogbookState) -> list[Outage]:
    """Entries of one tank from a meter on the room's air pump: each filter on that air stops, or runs again.

    reading: of the meter; state: the tank's. A tank with a pump of its own hears nothing of it.
    """
    if reading.watts is None or filter_plan(state).air.source == "own":
        return []
    running = reading.watts >= STOPPED_W
    return [
        Outage(kind="outage", running=running, filter_key=f.key)
        for f in state.filters()
        if f.filter.air and state.runs(f.key) != running
    ]


def _probed(field: Literal["temperature_c", "ph"], reading: DeviceReading, state: LogbookState) -> Reading | None:
    value = getattr(reading, field)
    if value is None:
        return None
    last = next((e for e in reversed(state.readings) if getattr(e.body, field) is not None), None)
    if last is not None:
        moved = abs(value - getattr(last.body, field)) >= PROBE_STEP[field] - 1e-9
        if not moved and abs(reading.at - last.at) < timedelta(hours=PROBE_HOURS):
            return None
    return Reading.model_validate({"kind": "reading", field: value})
