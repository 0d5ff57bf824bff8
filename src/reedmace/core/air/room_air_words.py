"""What is said of a room's air: the verdict, notes and remedies."""

from typing import Annotated

from pydantic import Field

from reedmace.core.air.plan import (
    RoomAirQuestion,
    is_estimated,
)
from reedmace.core.contract import Lph, Name, Part, Share, number
from reedmace.core.quantity import formatting

PUMP_DB = 31.0
"""Sound of a one-watt air pump at a metre, dB(A); ten times the watts add ten (memory)."""


SHORT_SHARE, BLOCKED_SHARE = 0.7, 0.6
"""Below the first share an outlet is short of air;

above the second a nearly silent one is blocked (stated judgements).
"""


BLEED_SHARE = 0.05
"""Surplus air, as a share of all, from which a bleed valve is worth it (a stated judgement)."""


class OutletAir(Part):
    """Air and water of one outlet."""

    key: Name
    name: Name
    air_l_min: Annotated[float, number("L/min", 0, 5000)]
    wanted_l_min: Annotated[float, number("L/min", 0, 60)]
    got_share: Annotated[float, number("share", 0, 1e5, "Air over air wanted")]
    water_lph: Lph | None
    node_kpa: Annotated[float, number("kPa", 0, 500, "In the main, where it is let off")]
    balanced_open_share: Share = Field(description="Its valve, so that all get the same share of what they want")
    blocked: bool


class PumpAir(Part):
    """Working point of one pump, and what remains if it fails."""

    key: Name
    name: Name
    l_min: Annotated[float, number("L/min", 0, 5000)]
    kpa: Annotated[float, number("kPa", 0, 500)]
    without_share: Annotated[float, number("share", 0, 1e5, "Least any outlet keeps of its air if this pump fails")]
    noise_db: Annotated[float, number("dB", 0, 140, "At a metre")]


TIME_A_LINE = (
    "Hold a jug of water upside down under water, lead one line into it and time how long the air takes to fill it:"
    " that tells the pump's air to a tenth or two."
)


def not_told(q: RoomAirQuestion, fair: float) -> str:
    """What is said where a pump nothing is known of may do. q: the room; fair: the share each gets when balanced."""
    names = " and ".join(p.name for p in q.pumps if is_estimated(p))
    return (
        f"Whether {names} has air enough for {len(q.outlets)} outlets cannot be told from its watts or outlets alone:"
        f" {fair:.0%} of what they want as such pumps usually give, all of it at their best. Time one line."
    )


def air_verdict(outlets: list[OutletAir], pumps: list[PumpAir], carries: bool, fair: float, more: int) -> str:
    """The first sentence on a room's air.

    outlets, pumps: as solved; carries: whether each outlet gets enough; fair: the share each gets when balanced; more:
    outlets the pumps could still carry.
    """
    blocked = [o.name for o in outlets if o.blocked]
    if blocked:
        return (
            f"{' and '.join(blocked)}: a blocked stone or line, since air enough stands before it. Its neighbours"
            " bubble."
        )
    short = [o for o in outlets if o.got_share < SHORT_SHARE]
    given = sum(p.l_min for p in pumps)
    if carries and not short:
        who = f"All {len(outlets)} outlets get their" if len(outlets) > 1 else "The one outlet gets its"
        return f"{who} air, {given:.1f} L/min in all; {more} more would too."
    if carries:
        return (
            f"{_names(short)} get{'s' if len(short) == 1 else ''} too little: set the valves, and all {len(outlets)}"
            " have enough."
        )
    return f"Too little air for {len(outlets)} outlets: with the valves balanced each gets {fair:.0%} of what it wants."


def _names(some: list[OutletAir]) -> str:
    if len(some) > 3:
        return f"{len(some)} outlets"
    names = [o.name for o in some]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def air_notes(pumps: list[PumpAir], noise_db: float, one_more_share: float, bleed_l_min: float) -> list[str]:
    """Notes on noise, one more outlet and a bleed.

    pumps: as solved; noise_db: of all; one_more_share: of its air an outlet keeps with one more; bleed_l_min: L/min.
    """
    heard = "pump is" if len(pumps) == 1 else "pumps are"
    found = [
        f"The {heard} heard as about {noise_db:.0f} dB at a metre: on a soft pad or hung free, never on a shelf.",
        f"One more like the weakest leaves the least of them {one_more_share:.0%} of its air.",
    ]
    if bleed_l_min > 0:
        found.append(f"A bleed valve may let {bleed_l_min:.1f} L/min off: quieter, and easier on the pump.")
    if len(pumps) > 1:
        found += [f"If {p.name} fails, every outlet keeps at least {p.without_share:.0%} of its air." for p in pumps]
    return found


def air_remedies(q: RoomAirQuestion, outlets: list[OutletAir], carries: bool, fair: float) -> list[str]:
    """What would mend a room's air. q: the room; outlets: as solved; carries: whether it does; fair: a share."""
    found = []
    uneven = max(o.got_share for o in outlets) > 1.5 * max(min(o.got_share for o in outlets), 1e-9)
    if uneven:
        found.append(
            "Set the valves one by one, the shallowest first, to the openings given here; then go round once more."
        )
    if not carries:
        deepest = max(q.outlets, key=lambda o: o.depth_cm)
        found.append(
            f"A pump with more air or more pressure; or hang {deepest.name} higher than"
            f" {formatting.cm(deepest.depth_cm, 'g')}."
        )
        if fair < SHORT_SHARE:
            found.append("A second pump on the other end of the main carries on when one fails.")
    if len(q.pumps) == 1:
        found.append("One pump feeds all: keep a second, or a battery pump, ready.")
    return found
