"""Parts shared by air-driven kinds: pump, check valve, line, start, and their faults."""

from reedmace.core.filter.kind_parts.common_steps import cable_fault, socket_mark
from reedmace.core.filter.kind_parts.fitting import MishapDraft, PowerCut, Purchase
from reedmace.core.filter.kind_parts.placement import (
    AIR_LOOP_CM,
    PartMark,
    PartRole,
    PlacedIssue,
    ResolvedLayout,
    RunDraft,
    issue_at,
)
from reedmace.core.filter.kind_parts.steps import WIRING, Step, StepFacts
from reedmace.core.quantity import formatting

POWER_CUT = PowerCut(
    minute="Bubbles stop; nothing leaks while the check valve holds.",
    hour="The film sits in the tank's own water and is well; watch the animals at the surface.",
    night="Oxygen runs low in a full tank: a battery air pump on the same line carries it.",
    on_return="It starts by itself. Look for bubbles.",
)
PROOFS = (("bucket", "can be caught"), ("transit", "carries a float"))
CAUSES = (
    "A clogged stone: the valve is open and hardly a bubble comes. Change it, or run the tube plain.",
    "Dirty foam: lift it in a bag, squeeze it in tank water, and time it again.",
    "The outlet stands in the air: top the water up, or cut the uplift.",
    "The pump is tired or shared too widely: look at its diaphragm and at the other valves.",
    "A kink or a shut valve in the air line.",
)


def rising_words(rise_m: float, above_cm: float) -> str:
    """Effect of height on the flow: none, whatever rise_m and above_cm."""
    return "Air lifts the water inside the tank: depth drives it, height costs it nothing."


def air_steps(prefix: str) -> tuple[Step, Step, Step]:
    """Steps for pump, check valve and start. prefix: of the kind's steps."""
    return (
        Step(
            id=f"{prefix}-air-pump",
            title="Place the air pump",
            detail="Above the water line if you can, on something soft.",
            caution=WIRING,
        ),
        Step(
            id=f"{prefix}-check-valve",
            title="Fit the check valve",
            detail="In the air line just outside the tank, arrow towards the tank, with an adjusting valve before it.",
            caution="Without a check valve a stopped pump siphons the tank onto the floor.",
        ),
        Step(
            id=f"{prefix}-start",
            title="Start the air",
            detail="Open the adjusting valve slowly to a steady stream.",
            normal="A steady stream of bubbles.",
            fault="None with the valve open: a clogged stone. Weak: dirty foam. Buzz: the pump.",
            wait_minutes=5,
        ),
    )


def valve_inspection(prefix: str) -> dict[str, tuple[tuple[str, str, str, PartRole], ...]]:
    """Inspection of the check valve before the air starts. prefix: of the kind's steps."""
    return {
        f"{prefix}-start": (
            (
                f"{prefix}-look-valve",
                "Look: the check valve's arrow",
                "It points towards the tank; blow gently and no air comes back.",
                "air-pump",
            ),
        )
    }


def uplift_words(q: StepFacts) -> str:
    """Longest uplift, in words. q: the sizes of the plan."""
    return f"Cut the uplift to {formatting.cm(q.uplift_cm)} above the bed at the most: " if q.uplift_cm else ""


def air_marks(g: ResolvedLayout) -> list[PartMark]:
    """Filter, air pump, socket. g: the ground."""
    pump = PartMark("air-pump", "air pump", g.length + 14, g.water + g.lay.air_pump_above_water_cm)
    return [PartMark("filter", "filter", g.intake_x, g.bed), pump, socket_mark(g)]


def air_runs(g: ResolvedLayout) -> list[RunDraft]:
    """The air line over the rim, with its low loop outside. g: the ground."""
    pump_y = g.water + g.lay.air_pump_above_water_cm
    edge, low = g.length + 8, min(g.rim + 4, pump_y) - AIR_LOOP_CM
    points = [
        (g.intake_x, g.bed + 3),
        (g.intake_x, g.rim + 4),
        (edge, g.rim + 4),
        (edge, low),
        (edge + 6, low),
        (edge + 6, pump_y),
    ]
    return [RunDraft("air-line", "air line", points, 1.5)]


def air_faults(g: ResolvedLayout) -> list[PlacedIssue]:
    """Faults: a pump below the water without a check valve; a cable without a loop. g: the ground."""
    found = cable_fault(g)
    above = g.lay.air_pump_above_water_cm
    if above < 0 and not g.lay.check_valve:
        found.append(
            issue_at(
                "air-pump",
                g.length + 14,
                g.water + above,
                f"The air pump stands {formatting.cm(-above, 'g')} below the water line and has no check valve: a power"
                " cut siphons the tank through it.",
                "Fit a check valve, or hang the pump above the water.",
            )
        )
    return found


def uplift_fault(g: ResolvedLayout) -> list[PlacedIssue]:
    """Fault: an uplift that will stand in the air. g: the ground."""
    top = g.bed + g.filter.height_cm
    if top <= g.water - 2:
        return []
    return [
        issue_at(
            "filter",
            g.intake_x,
            top,
            "The lift tube's outlet stands in the air once some water has evaporated: the lift falls off sharply.",
            f"Cut the tube to {formatting.cm(g.uplift_cm)} above the bed.",
        )
    ]


def air_fittings(g: ResolvedLayout) -> list[Purchase]:
    """Check valve and adjusting valve. g: the ground."""
    return [
        Purchase("check valve", 1, "piece", "outside the tank, arrow towards it"),
        Purchase("adjusting valve", 1, "piece", "to set the stream of bubbles"),
    ]


def uplift_cut(g: ResolvedLayout) -> Purchase:
    """The uplift tube, cut to length. g: the ground."""
    return Purchase(
        "uplift tube", float(int(g.uplift_cm)), "cm", "at most, from the bed, so that it stays under after evaporation"
    )


def air_mishaps(g: ResolvedLayout) -> list[MishapDraft]:
    """Mishaps: a stopped pump. g: the ground."""
    guarded = g.lay.check_valve or g.lay.air_pump_above_water_cm >= 0
    return [
        MishapDraft(
            "air-siphon",
            "Air line siphons when the pump stops",
            0.0 if guarded else max(g.site.water_depth_cm - 3, 0.0),
            (
                "The check valve or the pump's height holds it."
                if guarded
                else "The pump stands below the water and nothing holds the water back."
            ),
            (
                "Try the check valve once a year: stop the pump and see that no water climbs the line."
                if guarded
                else "A check valve, the cheapest part of all."
            ),
            bore_mm=4.0,
        )
    ]
