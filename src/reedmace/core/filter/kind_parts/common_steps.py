"""Steps, inspections and faults that several kinds share."""

from reedmace.core.filter.kind_parts.placement import (
    FROM_BED_CM,
    PartMark,
    PartRole,
    PlacedIssue,
    ResolvedLayout,
    issue_at,
)
from reedmace.core.filter.kind_parts.steps import UNPLUG, Step
from reedmace.core.quantity import formatting
from reedmace.core.tank.evaporation import TANK_DROP_CM


def guard_step(prefix: str) -> Step:
    """Step for the guard sponge. prefix: of the kind's steps."""
    return Step(
        id=f"{prefix}-guard",
        title="Guard sponge on the intake",
        detail="For shrimp, fry and small fish. Clean it before it clogs.",
    )


def leak_steps(prefix: str, first: str, again: str) -> list[Step]:
    """Leak checks five minutes, an hour and a day after power. prefix: of the steps; first, again: what to look at."""
    return [
        Step(
            id=f"{prefix}-leak-5", title="Leak check after five minutes", detail=first, caution=UNPLUG, wait_minutes=5
        ),
        Step(
            id=f"{prefix}-leak-60",
            title="Leak check after an hour",
            detail=f"The same again, and {again}.",
            wait_minutes=60,
        ),
        Step(
            id=f"{prefix}-leak-day",
            title="Leak check tomorrow",
            detail="A slow weep shows only overnight: leave a sheet of paper under it.",
            wait_minutes=1440,
        ),
    ]


def leak_order(prefix: str) -> dict[str, tuple[str, ...]]:
    """Order of the leak checks after power. prefix: of the steps."""
    return {
        f"{prefix}-leak-5": (f"{prefix}-power",),
        f"{prefix}-leak-60": (f"{prefix}-leak-5",),
        f"{prefix}-leak-day": (f"{prefix}-leak-60",),
    }


def plug_inspection(prefix: str) -> tuple[str, str, str, PartRole]:
    """Inspection of the cable before power. prefix: of the steps."""
    return (
        f"{prefix}-look-plug",
        "Look: drip loop",
        "The cable hangs lower than the socket before it rises to it.",
        "socket",
    )


def socket_mark(g: ResolvedLayout) -> PartMark:
    """The socket. g: the ground."""
    return PartMark("socket", "socket", g.socket_x, g.lay.socket_height_cm)


def cable_fault(g: ResolvedLayout) -> list[PlacedIssue]:
    """Fault: a cable without a drip loop. g: the ground."""
    if g.lay.drip_loop or g.lay.socket_height_cm >= g.rim:
        return []
    return [
        issue_at(
            "socket",
            g.socket_x,
            g.lay.socket_height_cm,
            "The cable runs down to the socket: a drip follows it into the plug.",
            "Hang the cable in a loop below the socket; residual-current protection decides the rest.",
        )
    ]


def intake_faults(g: ResolvedLayout) -> list[PlacedIssue]:
    """Faults: an intake too near the surface or the bed. g: the ground."""
    y = g.water - g.intake_depth
    found = []
    if g.intake_depth < TANK_DROP_CM + 3:
        found.append(
            issue_at(
                "intake",
                g.intake_x,
                y,
                f"The strainer lies {formatting.cm(g.intake_depth, 'g')} deep: after evaporation it draws air.",
                "Push it deeper.",
            )
        )
    if y < g.bed + 2:
        found.append(
            issue_at(
                "intake",
                g.intake_x,
                y,
                "The strainer stands in the bed: it takes sand into the pump.",
                f"Lift it {formatting.cm(FROM_BED_CM)} off the bed.",
            )
        )
    return found
