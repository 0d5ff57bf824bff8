"""The ordered fitting steps of each kind, with the caution where the hand is."""

from typing import Annotated

from reedmace.core.filter.catalogue import FilterKind
from reedmace.core.working import Answer, Name, Part, Question, Working, number, whole


class FittingStepsQuestion(Question):
    """What is fitted, and the few sizes the steps speak of."""

    kind: FilterKind
    filter_height_cm: Annotated[float, number("cm", 1, 200)] = 20
    water_depth_cm: Annotated[float, number("cm", 1, 300)] = 35
    rim_to_water_cm: Annotated[float, number("cm", 0, 100)] = 3
    media_l: Annotated[float, number("L", 0, 500)] = 1
    hose_bore_mm: Annotated[float, number("mm", 3, 110)] | None = None
    hose_length_m: Annotated[float, number("m", 0.2, 50)] | None = None
    needs_guard: bool = False
    behind_cm: Annotated[float, number("cm", 0, 300)] = 10


class Step(Part):
    """One step. `id` is stable, so a tick keeps its meaning when the plan changes."""

    id: Name
    title: str
    detail: str
    caution: str | None = None
    normal: str | None = None
    fault: str | None = None
    wait_minutes: Annotated[int, whole(0, 3000, "Wait before the next step")] = 0


class FittingStepsAnswer(Answer):
    """Steps in the order of doing."""

    steps: list[Step]


_UNPLUG = "Unplug before hands go in or a lid comes off."
_WIRING = "Drip loop in the cable, plug above any spill, residual-current protection. Local codes and a licensed electrician decide for wiring."


def _sponge(q: FittingStepsQuestion, w: Working) -> list[Step]:
    uplift = w.line(
        "outlet",
        "water depth − filter height",
        f"{q.water_depth_cm:.0f} − {q.filter_height_cm:g}",
        q.water_depth_cm - q.filter_height_cm,
        "cm under the surface",
        "geometry",
    )
    return [
        Step(
            id="sponge-height",
            title="Check the height",
            detail=f"It stands {q.filter_height_cm:g} cm high in {q.water_depth_cm:.0f} cm of water, so its outlet sits {max(uplift, 0):.0f} cm under. Keep 2 cm for evaporation.",
            fault="Outlet in the air: the lift falls off sharply." if uplift < 2 else None,
        ),
        Step(
            id="sponge-rinse",
            title="Pull it apart and rinse the foam",
            detail="In clean dechlorinated water. Keep the lift tube: without it the flow and the filtering fall.",
        ),
        Step(
            id="sponge-air-pump",
            title="Place the air pump",
            detail="Above the water line if you can, on something soft.",
            caution=_WIRING,
        ),
        Step(
            id="sponge-check-valve",
            title="Fit the check valve",
            detail="In the air line just outside the tank, arrow towards the tank, with an adjusting valve before it.",
            caution="Without a check valve a stopped pump siphons the tank onto the floor.",
        ),
        Step(
            id="sponge-line",
            title="Cut the air line",
            detail="Lay it along its run first, with a low loop outside the tank, then cut it long.",
            caution="A blade slips on wet line: cut away from the hand.",
        ),
        Step(
            id="sponge-place",
            title="Put it in a rear corner",
            detail="Squeeze the foam under water until no more air comes out, and let it sink. Plants hide it.",
            caution="Wash hands before and after.",
        ),
        Step(
            id="sponge-start",
            title="Start the air",
            detail="Open the adjusting valve slowly to a steady stream.",
            normal="A steady stream of bubbles.",
            fault="None with the valve open: clogged stone. Weak: dirty foam. Buzz: the pump.",
            wait_minutes=5,
        ),
        Step(
            id="sponge-spare",
            title="Put in a spare sponge to seed",
            detail="Note the date. In a month it can start another tank.",
        ),
    ]


def _hang_on(q: FittingStepsQuestion, w: Working) -> list[Step]:
    w.line("box", "media volume × 1.5, about", f"{q.media_l:g} × 1.5", q.media_l * 1.5, "L to fill the box", "memory")
    steps = [
        Step(
            id="hangon-body",
            title="Hang the empty body first",
            detail=f"On the rim, with {q.behind_cm:g} cm behind the tank; nothing fitted yet.",
            caution="Tank glass edges are sharp and a full tank must not be moved.",
        ),
        Step(
            id="hangon-level",
            title="Level it",
            detail="By the foot behind, until the box stands level both ways.",
            fault="A tilted box spills behind the tank once its media clogs.",
        ),
        Step(
            id="hangon-media",
            title="Rinse and load the media",
            detail="Coarse foam lowest, since water rises through it; not crammed. Take bags off.",
            fault="Overfilled baskets lift the lid, and water goes over the back.",
        ),
        Step(
            id="hangon-intake",
            title="Push the intake stem fully home",
            detail=f"It should reach about {q.water_depth_cm * 0.6:.0f} cm down; an extension is cut to depth.",
        ),
    ]
    if q.needs_guard:
        steps.append(
            Step(
                id="hangon-guard",
                title="Guard sponge on the intake",
                detail="For shrimp, fry and small fish. Clean it before it clogs.",
            )
        )
    return [
        *steps,
        Step(
            id="hangon-water-line",
            title="Fill the tank near the lip",
            detail=f"Your water line is {q.rim_to_water_cm:g} cm under the rim; every centimetre of fall costs flow and splashes.",
        ),
        Step(
            id="hangon-prime",
            title="Fill the box before power",
            detail=f"About {q.media_l * 1.5:.1f} L of treated water, until it spills from the front.",
            caution="Never run the motor dry.",
        ),
        Step(
            id="hangon-power",
            title="Dry the plug and switch on",
            detail="Cable with a drip loop.",
            caution=_WIRING,
            normal="A short roar while air leaves.",
            fault="Grinding or banging that goes on: no water at the impeller. Unplug and refill.",
        ),
        Step(
            id="hangon-leak",
            title="Look underneath",
            detail="A dry hand along the body and the wall after five minutes, an hour, a day.",
            caution=_UNPLUG,
            wait_minutes=5,
        ),
        Step(
            id="hangon-flow",
            title="Set the flow and put the lid on",
            detail="Then catch the spill in a jug for the flow test below, if it can be caught.",
        ),
    ]


def _canister(q: FittingStepsQuestion, w: Working) -> list[Step]:
    prime = w.line(
        "prime", "media volume × 2, about", f"{q.media_l:g} × 2", q.media_l * 2, "L to fill the body", "memory"
    )
    hose = (
        f"{q.hose_length_m:g} m of {q.hose_bore_mm:g} mm hose is planned; "
        if q.hose_length_m and q.hose_bore_mm
        else ""
    )
    steps = [
        Step(
            id="canister-feet",
            title="Feet or pads on first",
            detail="They are forgotten once the body is full.",
            caution=f"Full it weighs about {prime + 4:.0f} kg: lift with both hands and a straight back.",
        ),
        Step(
            id="canister-media",
            title="Rinse and load the media",
            detail="In the order the water meets them: coarse, medium or fine foam, then ceramic; chemical last if at all. Take bags off, seat every tray.",
            fault="A lid that will not close means a tray is not down.",
        ),
        Step(
            id="canister-place",
            title="Put the body where it will stand",
            detail="Below the water line, never above it, with room over it for the hoses.",
        ),
        Step(
            id="canister-ends",
            title="Intake and outlet on the tank",
            detail="At opposite ends. Outlet or spray bar at or about 5 cm under the surface, holes to the front.",
        ),
    ]
    if q.needs_guard:
        steps.append(
            Step(
                id="canister-guard",
                title="Guard sponge on the intake",
                detail="For shrimp, fry and small fish. Clean it before it clogs.",
            )
        )
    return [
        *steps,
        Step(
            id="canister-hose",
            title="Now measure and cut the hose",
            detail=f"{hose}place first, measure, then cut long and square: hose cannot be cut longer. No kinks.",
            caution="Blade away from the hand. Hot water softens hose ends and scalds.",
        ),
        Step(
            id="canister-clamps",
            title="Clamp on the hose before the hose on the nozzle",
            detail="Push past all the ridges, then tighten; hand-tight on plastic.",
            fault="An over-tightened nut cracks; a hose short of the ridges slides off under pressure.",
        ),
        Step(
            id="canister-valves",
            title="Both valves shut while half fitted",
            detail="In to in, out to out. Close the lid clamps criss-cross.",
        ),
        Step(
            id="canister-prime",
            title="Prime with tank water",
            detail=f"About {prime:.0f} L, not chlorinated tap water, then open both valves.",
            caution="Never start a siphon by mouth.",
        ),
        Step(
            id="canister-power",
            title="Dry the plug and switch on",
            detail="In a small tank start with the water low: the jet may go over the rim. Turn the outlet to the glass and throttle the outlet, never the intake.",
            caution=_WIRING,
            normal="It may stop, start, roar and spit bubbles for some minutes while air leaves.",
            fault="Still roaring after half an hour: tilt the body gently; check the intake is under water.",
        ),
        Step(
            id="canister-leak-5",
            title="Leak check after five minutes",
            detail="Dry tissue round lid, valves and both nozzles.",
            caution=_UNPLUG,
            wait_minutes=5,
        ),
        Step(
            id="canister-leak-60",
            title="Leak check after an hour",
            detail="The same again, and look along both hoses.",
            wait_minutes=60,
        ),
        Step(
            id="canister-leak-day",
            title="Leak check tomorrow",
            detail="A slow weep shows only overnight: leave a sheet of paper under it.",
            wait_minutes=1440,
        ),
    ]


def fitting_steps(question: FittingStepsQuestion) -> FittingStepsAnswer:
    """The steps for a kind, in the order of doing.

    question: kind and sizes in cm, L, mm, m. Source: common practice.
    """
    w = Working()
    steps = {"sponge": _sponge, "hang-on": _hang_on, "canister": _canister}[question.kind](question, w)
    return FittingStepsAnswer(
        verdict=f"{len(steps)} steps, in this order. Leak checks are part of the job.", working=w.lines, steps=steps
    )
