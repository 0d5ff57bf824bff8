"""Run a simulated device against a running Reedmace."""

import sys
import urllib.error
from datetime import UTC, datetime, timedelta

from reedmace.standins import FlowMeter, Sender, SmartPlug


def standin(kind: str, address: str, token: str, days: int, figure: float) -> int:
    """Send `days` of readings that end now. figure: L/h clean for a meter, W for a plug."""
    start = datetime.now(UTC) - timedelta(days=days)
    if kind == "flow-meter":
        readings = list(FlowMeter(clean_lph=figure).readings(start, days))
    else:
        # One cut of five hours, half way.
        half = days * 720
        readings = list(SmartPlug(watts=figure, cuts=((half, half + 300),)).readings(start, days * 1440, 60))
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
