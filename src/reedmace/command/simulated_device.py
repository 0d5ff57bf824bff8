"""Run a simulated device against a running Reedmace."""

import sys
import urllib.error
from datetime import UTC, datetime, timedelta
from typing import Any

from reedmace.standins import ColourKit, FlowMeter, PhProbe, Sender, SmartPlug, Thermometer, usual_tank


def readings_of(kind: str, start: datetime, days: int, figure: float) -> list[dict[str, Any]]:
    """Readings of a device of that kind over `days` from `start`. figure: L/h clean for a meter, W for a plug."""
    if kind == "flow-meter":
        return list(FlowMeter(clean_lph=figure).readings(start, days))
    if kind == "smart-plug":
        # One power cut of five hours, half way.
        half = days * 720
        return list(SmartPlug(watts=figure, cuts=((half, half + 300),)).readings(start, days * 1440, 60))
    tank = usual_tank(days)
    if kind == "test-kit":
        # A keeper tests in the morning, before the day's dose.
        return [ColourKit().reading(tank, max(day - 0.05, 0), start) for day in range(0, days + 1, 2)]
    probe = Thermometer() if kind == "thermometer" else PhProbe()
    return [probe.reading(tank, hour / 24, start) for hour in range(0, days * 24 + 1, 3)]


def standin(kind: str, address: str, token: str, days: int, figure: float) -> int:
    """Send `days` of readings that end now. figure: L/h clean for a meter, W for a plug."""
    start = datetime.now(UTC) - timedelta(days=days)
    readings = readings_of(kind, start, days, figure)
    sender = Sender(address.rstrip("/"), token)
    try:
        written = sum(sender.send(r) for r in readings)
    except urllib.error.HTTPError as error:
        print(f"reedmace standin: refused ({error.code}): {error.read().decode()[:300]}", file=sys.stderr)
        return 2
    except OSError as error:
        print(f"reedmace standin: {address} cannot be reached: {error}", file=sys.stderr)
        return 2
    print(f"sent {len(readings)} readings; {written} made an entry")
    return 0
