"""A simulated flow meter and smart plug, and the sender of their readings.

Both are deterministic for a seed and know no clock: time comes in. Only `Sender` touches the network.
"""

import json
import urllib.request
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

import numpy as np


@dataclass(frozen=True)
class FlowMeter:
    """A meter in the return hose of a filter that fades.

    clean_lph: flow after a cleaning, L/h; fade_share_day: share of it lost a day; noise_share: its own scatter; seed:
    of that scatter.
    """

    clean_lph: float
    fade_share_day: float = 0.003
    noise_share: float = 0.02
    seed: int = 1

    def readings(self, start: datetime, days: int, every_days: int = 7) -> Iterator[dict[str, Any]]:
        """One reading at each interval. start: aware time of the cleaning; days, every_days: days."""
        rng = np.random.default_rng(self.seed)
        for day in range(0, days + 1, every_days):
            flow = (
                self.clean_lph
                * max(1 - self.fade_share_day * day, 0.05)
                * (1 + self.noise_share * rng.standard_normal())
            )
            yield {
                "key": f"meter-{self.seed}-{day:05d}",
                "at": (start + timedelta(days=day)).isoformat(),
                "flow_lph": round(float(flow), 1),
            }


@dataclass(frozen=True)
class SmartPlug:
    """A plug that measures a filter's power.

    watts: while it runs, W; cuts: (first minute, last minute) of each power cut after the start; seed: of its scatter.
    """

    watts: float
    cuts: tuple[tuple[int, int], ...] = ()
    seed: int = 1

    def readings(self, start: datetime, minutes: int, every_minutes: int = 10) -> Iterator[dict[str, Any]]:
        """One reading at each interval. start: aware time; minutes, every_minutes: minutes."""
        rng = np.random.default_rng(self.seed)
        for minute in range(0, minutes + 1, every_minutes):
            off = any(first <= minute < last for first, last in self.cuts)
            drawn = 0.0 if off else self.watts * (1 + 0.01 * float(rng.standard_normal()))
            yield {
                "key": f"plug-{self.seed}-{minute:06d}",
                "at": (start + timedelta(minutes=minute)).isoformat(),
                "watts": round(drawn, 2),
            }


@dataclass(frozen=True)
class Sender:
    """Sends readings to a running Reedmace. address: its root, http://127.0.0.1:8420; token: the device's."""

    address: str
    token: str

    def send(self, reading: dict[str, Any]) -> bool:
        """Send one reading; True when it made an entry. Raises urllib.error.HTTPError when it is rejected."""
        request = urllib.request.Request(  # noqa: S310 - the keeper's own address
            f"{self.address}/api/device/readings",
            data=json.dumps(reading).encode(),
            headers={"Content-Type": "application/json", "Authorization": f"Bearer {self.token}"},
        )
        with urllib.request.urlopen(request, timeout=20) as answer:  # noqa: S310
            written: bool = json.loads(answer.read())["written"]
        return written
