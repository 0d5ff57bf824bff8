"""Description of a fish room's air supply (pumps, main, outlets) and the network built from it."""

from collections import Counter
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from reedmace.core.air.air_supply import STONE_KPA, VALVE_KPA
from reedmace.core.air.network import Network
from reedmace.core.contract import Name, Part, Question, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity.constants import WATER_KG_M3, G

L_MIN = 1 / 60000
TAP_PA = 250.0 / (2 * L_MIN) ** 2
"""Pressure loss of an adjusting valve wide open: a quarter of a kPa at 2 L/min (memory)."""
LEAST_OPEN = 0.02
L_MIN_PER_W, USUAL_KPA = 1.1, 18.0
"""Estimates for an air pump known by its watts alone.

From memory: small diaphragm pumps give 0.8 to 1.5 L/min a watt and reach 12 to 30 kPa.
"""
USUAL_KPA_RANGE = (12.0, 30.0)
"""Pressures at which such pumps give up, kPa (memory)."""
L_MIN_PER_OUTLET = 0.6
"""Estimate for a pump known only by its number of outlets (memory)."""
MORE_THAN_ESTIMATED = 1.5
"""Highest air of such a pump over what its watts or outlets let expect (memory)."""
NEVER_PA = 1e12


class RoomPump(Part):
    """An air pump by its two rated figures, or by whatever else is known of it."""

    key: Name
    name: Name
    node: Name = "pump"
    l_min: Annotated[float, number("L/min", 0.1, 2000, "Free flow on the box")] | None = None
    kpa: Annotated[float, number("kPa", 1, 200, "Pressure at which it gives up")] | None = None
    watts: Annotated[float, number("W", 0.5, 2000)] | None = None
    outlets_count: Annotated[int, whole(1, 500, "“For so many outlets”, as its box says")] | None = None


class MainPiece(Part):
    """A section of the main between two named nodes."""

    start: Name
    end: Name
    bore_mm: Annotated[float, number("mm", 3, 100)] = 16
    length_m: Annotated[float, number("m", 0.05, 200)]


class RoomOutlet(Part):
    """One outlet: its node on the main, its line and valve, its air lift."""

    key: Name
    name: Name
    node: Name
    depth_cm: Annotated[float, number("cm", 0, 300, "Air let go so far under the surface")]
    wanted_l_min: Annotated[float, number("L/min", 0.05, 60)]
    line_bore_mm: Annotated[float, number("mm", 2, 25)] = 4
    line_length_m: Annotated[float, number("m", 0.05, 50)] = 1.5
    stone: bool = False
    open_share: Annotated[float, number("share", 0, 1, "Its adjusting valve; 0 is shut")] = 1
    tube_bore_mm: Annotated[float, number("mm", 6, 110, "Of its lift; left out, it only bubbles")] | None = None
    foam_face_cm2: Annotated[float, number("cm²", 10, 50000)] = 300
    foam_depth_cm: Annotated[float, number("cm", 0.5, 60)] = 3
    seen: Annotated[
        Literal["steady", "weak", "none"] | None, Field(description="What comes out of it, where somebody looked")
    ] = None


class RoomAirQuestion(Question):
    """Pumps, sections of the main, and the outlets on it."""

    pumps: Annotated[list[RoomPump], Field(min_length=1, max_length=8)]
    mains: Annotated[list[MainPiece], Field(max_length=500)] = Field(default_factory=list)
    outlets: Annotated[list[RoomOutlet], Field(min_length=1, max_length=400)]
    temperature_c: Annotated[float, number("°C", 4, 40)] = 25


def pump_figures(p: RoomPump, assumed: list[str]) -> tuple[float, float]:
    """(free flow in L/min, maximum pressure in kPa) of a pump; missing figures are estimated and reported.

    p: the pump; assumed: gets what was estimated. Raises CannotAnswer where nothing is known.
    """
    kpa, free = p.kpa, p.l_min
    if kpa is None:
        kpa = USUAL_KPA
        assumed.append(f"{p.name} gives up at {USUAL_KPA:g} kPa, as such pumps do")
    if free is None:
        if p.watts is not None:
            free = L_MIN_PER_W * p.watts
            assumed.append(f"{p.name} gives {free:.2g} L/min by its {p.watts:g} W")
        elif p.outlets_count is not None:
            free = L_MIN_PER_OUTLET * p.outlets_count
            assumed.append(f"{p.name} gives {free:.2g} L/min by the {p.outlets_count} outlets on its box")
        else:
            raise CannotAnswer(
                f"pumps.{p.key}",
                "nothing is known of this pump.",
                "Give its L/min, its watts, for how many outlets it is sold, or time a jug on one of its lines.",
            )
    return free, kpa


def is_known(p: RoomPump) -> bool:
    """Whether anything tells a pump's air. p: the pump."""
    return p.l_min is not None or p.watts is not None or p.outlets_count is not None


def is_estimated(p: RoomPump) -> bool:
    """Whether a pump's air is known by its watts or outlets alone. p: the pump."""
    return p.l_min is None


def outlet_line(o: RoomOutlet) -> tuple[float, float, float, float]:
    """(threshold in Pa, bore, length in m, valve in Pa/(m³/s)²) of an outlet. o: the outlet."""
    threshold = WATER_KG_M3 * G * o.depth_cm / 100 + 1000 * (VALVE_KPA + (STONE_KPA if o.stone else 0.0))
    shut = o.open_share < LEAST_OPEN
    return (
        NEVER_PA if shut else threshold,
        o.line_bore_mm / 1000,
        o.line_length_m,
        TAP_PA / max(o.open_share, LEAST_OPEN) ** 2,
    )


def network_of(q: RoomAirQuestion, figures: list[tuple[float, float]]) -> tuple[Network, dict[str, int]]:
    """The network of a fish room, and its nodes by name. q: the room's; figures: of its pumps, L/min and kPa.

    Raises CannotAnswer where it does not hang together.
    """
    names: dict[str, int] = {}
    for name in (*(p.node for p in q.pumps), *(n for m in q.mains for n in (m.start, m.end))):
        names.setdefault(name, len(names))
    for key, count in Counter(o.key for o in q.outlets).items():
        if count > 1:
            raise CannotAnswer("outlets", f"two outlets share the key “{key}”.", "Give each its own.")
    _check_connected(q, names)
    net = Network(
        nodes=len(names),
        ends=np.array([[names[m.start], names[m.end]] for m in q.mains], dtype=np.int64).reshape(-1, 2),
        pipes=np.array([[m.bore_mm / 1000, m.length_m] for m in q.mains], dtype=float).reshape(-1, 2),
        at=np.array([names[o.node] for o in q.outlets], dtype=np.int64),
        lines=np.array([outlet_line(o) for o in q.outlets]),
        pump_at=np.array([names[p.node] for p in q.pumps], dtype=np.int64),
        pumps=np.array([(free * L_MIN, kpa * 1000) for free, kpa in figures]),
    )
    return net, names


def _check_connected(q: RoomAirQuestion, names: dict[str, int]) -> None:
    """Raise CannotAnswer naming a node that no pump feeds."""
    fed = {p.node for p in q.pumps}
    grows = True
    while grows:
        more = {m.end for m in q.mains if m.start in fed} | {m.start for m in q.mains if m.end in fed}
        grows = not more <= fed
        fed |= more
    for o in q.outlets:
        if o.node not in fed:
            raise CannotAnswer(
                "outlets",
                f"“{o.name}” is let off at “{o.node}”, which hangs on no pump.",
                "Join it with a piece of main.",
            )
    if names.keys() - fed:
        raise CannotAnswer("mains", f"“{min(names.keys() - fed)}” hangs on no pump.", "Join it, or take it out.")
