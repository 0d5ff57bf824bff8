"""The ordered fitting steps of each kind, with the caution where the hand is."""

from typing import Annotated

from pydantic import Field

from reedmace.core.filter.catalogue import FilterKind, Priming
from reedmace.core.filter.media import PATH_WORDS, MediaPath
from reedmace.core.working import Answer, Name, Part, Question, Working, number, whole


class FittingStepsQuestion(Question):
    """What is fitted, and the few sizes the steps speak of."""

    kind: FilterKind
    filter_height_cm: Annotated[float, number("cm", 1, 200)] = 20
    water_depth_cm: Annotated[float, number("cm", 1, 300)] = 35
    rim_to_water_cm: Annotated[float, number("cm", 0, 100)] = 3
    media_l: Annotated[float, number("L", 0, 500)] = 1
    media_path: MediaPath = "bottom-up"
    priming: Priming = "fill"
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
    look_at: Name | None = Field(
        default=None, description="A part of the fitting plan to find on the drawing and confirm"
    )
    after: list[Name] = Field(default_factory=list, description="Steps that must be done before this one")


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
        *_air("sponge")[:2],
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
        _air("sponge")[2],
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
        steps.append(_guard("hangon"))
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
        *_leaks("hangon", "A dry hand along the body and the wall behind it.", "look at the floor behind the tank"),
        Step(
            id="hangon-flow",
            title="Set the flow and put the lid on",
            detail="Then catch the spill in a jug for the flow test below, if it can be caught.",
        ),
    ]


_PRIMING = {
    "fill": "Fill the body with about {:.0f} L before the lid goes on, and the hoses with a jug.",
    "button": "Open the intake and press the primer until about {:.0f} L have run in and it rises no more.",
    "self": "Wet it with about {:.0f} L in the body; its pump draws the rest itself once it runs.",
}


def _canister(q: FittingStepsQuestion, w: Working) -> list[Step]:
    prime = w.line(
        "prime", "media volume × 2, about", f"{q.media_l:g} × 2", q.media_l * 2, "L to fill the body", "memory"
    )
    hose = (
        f"{q.hose_length_m:.1f} m of {q.hose_bore_mm:g} mm hose is planned; "
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
            detail=f"{PATH_WORDS[q.media_path]} Coarse, medium or fine foam, then ceramic; chemical last if at all. Take bags off, seat every tray.",
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
        steps.append(_guard("canister"))
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
            detail=f"{_PRIMING[q.priming].format(prime)} Not chlorinated tap water. Then open both valves.",
            caution="Never start a siphon by mouth.",
        ),
        Step(
            id="canister-power",
            title="Dry the plug and switch on",
            detail="In a small tank start with the water low: the jet may go over the rim. Turn the outlet to the glass and throttle the outlet, never the intake.",
            caution=_WIRING,
            normal="It stops, starts, roars and spits bubbles for minutes while it clears itself: not a fault."
            if q.priming == "self"
            else "It may roar and spit bubbles for a minute or two while air leaves.",
            fault="Still roaring after half an hour: tilt the body gently; check the intake is under water.",
        ),
        *_leaks("canister", "Dry tissue round lid, valves and both nozzles.", "look along both hoses"),
    ]


def _guard(kind: str) -> Step:
    return Step(
        id=f"{kind}-guard",
        title="Guard sponge on the intake",
        detail="For shrimp, fry and small fish. Clean it before it clogs.",
    )


def _leaks(kind: str, first: str, again: str) -> list[Step]:
    """Leak checks five minutes, an hour and a day after power. kind: names the steps; first, again: what to look at."""
    return [
        Step(id=f"{kind}-leak-5", title="Leak check after five minutes", detail=first, caution=_UNPLUG, wait_minutes=5),
        Step(
            id=f"{kind}-leak-60",
            title="Leak check after an hour",
            detail=f"The same again, and {again}.",
            wait_minutes=60,
        ),
        Step(
            id=f"{kind}-leak-day",
            title="Leak check tomorrow",
            detail="A slow weep shows only overnight: leave a sheet of paper under it.",
            wait_minutes=1440,
        ),
    ]


def _air(kind: str) -> list[Step]:
    """What every air-driven filter shares: pump, check valve, line, start. kind: names the steps."""
    return [
        Step(
            id=f"{kind}-air-pump",
            title="Place the air pump",
            detail="Above the water line if you can, on something soft.",
            caution=_WIRING,
        ),
        Step(
            id=f"{kind}-check-valve",
            title="Fit the check valve",
            detail="In the air line just outside the tank, arrow towards the tank, with an adjusting valve before it.",
            caution="Without a check valve a stopped pump siphons the tank onto the floor.",
        ),
        Step(
            id=f"{kind}-start",
            title="Start the air",
            detail="Open the adjusting valve slowly to a steady stream.",
            normal="A steady stream of bubbles.",
            fault="None with the valve open: a clogged stone. Weak: dirty foam. Buzz: the pump.",
            wait_minutes=5,
        ),
    ]


def _internal(q: FittingStepsQuestion, w: Working) -> list[Step]:
    w.line(
        "under",
        "water depth − filter height",
        f"{q.water_depth_cm:.0f} − {q.filter_height_cm:g}",
        q.water_depth_cm - q.filter_height_cm,
        "cm",
        "geometry",
    )
    steps = [
        Step(
            id="internal-media",
            title="Foam in, cartridge out",
            detail="A washable foam keeps the film; a thrown-away cartridge takes it along. Rinse it first.",
        ),
        Step(
            id="internal-place",
            title="Hold it against a side pane",
            detail=f"Press the suckers on below the water line; it stands {q.filter_height_cm:g} cm high. Its height sets the ripple.",
            caution="Wash hands before and after.",
        ),
    ]
    if q.needs_guard:
        steps.append(_guard("internal"))
    return [
        *steps,
        Step(
            id="internal-power",
            title="Dry the plug and switch on",
            detail="Only with the whole pump under water. Cable with a drip loop.",
            caution=_WIRING,
            normal="A few bubbles spat out, then a steady push of water.",
            fault="Rattling that goes on: air in the impeller. Tilt it under water.",
        ),
        Step(
            id="internal-aim",
            title="Aim the outlet",
            detail="Along the long side, rippling the surface; against the glass for slow swimmers.",
        ),
    ]


def _sheet(q: FittingStepsQuestion, w: Working) -> list[Step]:
    gap = w.line("behind the foam", "about 6 cm", "room for the lift", 6, "cm", "practice")
    return [
        Step(
            id="sheet-cut",
            title="Cut the foam to the tank",
            detail=f"A little wider than the inside, so that it clamps itself; {gap:.0f} cm stay free behind it for the lift.",
            caution="A blade slips on wet foam: cut away from the hand.",
        ),
        Step(
            id="sheet-rinse",
            title="Rinse it and stand it in",
            detail="Upright from glass to glass, down to the base: a gap lets water past.",
        ),
        Step(
            id="sheet-lift",
            title="Put the lift behind it",
            detail="The tube goes through a hole near the top; its outlet stays under the surface after evaporation.",
        ),
        *_air("sheet"),
    ]


def _sump(q: FittingStepsQuestion, w: Working) -> list[Step]:
    w.line("over", "height for hands above it", "10 cm", 10, "cm", "practice")
    return [
        Step(
            id="sump-drill",
            title="Overflow in place",
            detail="Drilled with a bulkhead, or a box that siphons over the rim.",
            caution="Drilling glass: eyes, water and dust protection, or a professional. Tempered glass shatters.",
        ),
        Step(
            id="sump-place",
            title="Put the sump in the cabinet",
            detail=f"Level, on a pad, with {q.filter_height_cm:g} cm and 10 cm over it. It must come out again.",
            caution="Two people: glass edges, and a heavy box in a low place.",
        ),
        Step(
            id="sump-pipes",
            title="Drain and return",
            detail="Drain with a gate valve; return with a siphon break just under the surface. Dry-fit all of it first.",
            caution="Solvent cement: eyes, air and no flame, or a plumber. Local codes decide for fixed pipes.",
        ),
        Step(
            id="sump-media",
            title="Socks, foam, media",
            detail="Where the drain comes down: sock or floss; then foam; then ceramic; heater and pump last.",
        ),
        Step(
            id="sump-fill",
            title="Fill with treated water",
            detail="The tank to its edge, then the sump to a mark that leaves room for what runs back.",
            caution="Never run the pump or a heater dry.",
        ),
        Step(
            id="sump-power",
            title="Dry the plug and switch on",
            detail="Watch the level fall in the sump and stand still.",
            caution=_WIRING,
            normal="Gurgling until the drain has found its level.",
            fault="The tank keeps rising: the drain is blocked or draws air. Switch off.",
        ),
        Step(
            id="sump-tune",
            title="Tune the gate valve",
            detail="Close it slowly until the drain runs full and silent, or turn the return down.",
        ),
        Step(
            id="sump-off",
            title="Switch it off and watch it run back",
            detail="The sump must take it all. If it nears the rim, lower its running level or raise the siphon break.",
            wait_minutes=5,
        ),
        *_leaks("sump", "Dry tissue round bulkheads and unions.", "look along drain and return"),
    ]


def _box(q: FittingStepsQuestion, w: Working) -> list[Step]:
    w.line("media", "fill of the box", f"{q.media_l:g}", q.media_l, "L", "label")
    return [
        Step(
            id="box-ballast",
            title="Ballast first",
            detail="A stone or some gravel in the foot: without it the box floats.",
        ),
        Step(
            id="box-media",
            title="Load it loosely",
            detail=f"{q.media_l:g} L: ceramic or gravel below, floss on top. When the floss is thrown out, the film below stays.",
        ),
        Step(
            id="box-place",
            title="Put it in a rear corner",
            detail="Let it fill and sink. It slides: wedge it.",
            caution="Wash hands before and after.",
        ),
        *_air("box"),
    ]


def _under_gravel(q: FittingStepsQuestion, w: Working) -> list[Step]:
    w.line("gravel", "over the plate", "6", 6, "cm", "practice")
    return [
        Step(
            id="gravel-plate", title="Plate before gravel", detail="On the bare base, flat, risers at the back corners."
        ),
        Step(
            id="gravel-cover",
            title="Cover it",
            detail="6 cm of rinsed gravel of 3 to 5 mm; finer falls through.",
            caution="A bucket of wet gravel is heavy: lower it in, never drop it on glass.",
        ),
        Step(
            id="gravel-risers",
            title="Cut the risers",
            detail="Their outlets stay under the surface after evaporation.",
            fault="An outlet in the air: the lift falls off sharply.",
        ),
        *_air("gravel"),
        Step(
            id="gravel-habit",
            title="Mind the dirt",
            detail="Vacuum a quarter of the gravel at each change; what gathers under the plate is out of reach.",
        ),
    ]


# What must be done before each step: water before power, place before cutting, hose clamps before pressure.
_AFTER: dict[str, tuple[str, ...]] = {
    "sponge-line": ("sponge-air-pump",),
    "sponge-start": ("sponge-check-valve", "sponge-air-pump", "sponge-line", "sponge-place"),
    "sheet-rinse": ("sheet-cut",),
    "sheet-start": ("sheet-check-valve", "sheet-air-pump", "sheet-rinse", "sheet-lift"),
    "box-media": ("box-ballast",),
    "box-place": ("box-ballast", "box-media"),
    "box-start": ("box-check-valve", "box-air-pump", "box-place"),
    "gravel-cover": ("gravel-plate",),
    "gravel-start": ("gravel-check-valve", "gravel-air-pump", "gravel-cover", "gravel-risers"),
    "hangon-level": ("hangon-body",),
    "hangon-media": ("hangon-level",),
    "hangon-prime": ("hangon-level", "hangon-media", "hangon-intake", "hangon-guard", "hangon-water-line"),
    "hangon-power": ("hangon-prime",),
    "hangon-leak-5": ("hangon-power",),
    "hangon-leak-60": ("hangon-leak-5",),
    "hangon-leak-day": ("hangon-leak-60",),
    "hangon-flow": ("hangon-power",),
    "internal-power": ("internal-media", "internal-place", "internal-guard"),
    "internal-aim": ("internal-power",),
    "canister-place": ("canister-feet", "canister-media"),
    "canister-hose": ("canister-place", "canister-ends"),
    "canister-clamps": ("canister-hose",),
    "canister-valves": ("canister-media", "canister-clamps"),
    "canister-prime": ("canister-valves", "canister-guard"),
    "canister-power": ("canister-prime",),
    "canister-leak-5": ("canister-power",),
    "canister-leak-60": ("canister-leak-5",),
    "canister-leak-day": ("canister-leak-60",),
    "sump-pipes": ("sump-drill", "sump-place"),
    "sump-fill": ("sump-pipes", "sump-media"),
    "sump-power": ("sump-fill",),
    "sump-tune": ("sump-power",),
    "sump-off": ("sump-power",),
    "sump-leak-5": ("sump-power",),
    "sump-leak-60": ("sump-leak-5",),
    "sump-leak-day": ("sump-leak-60",),
}

# Before power: the points that flood a floor or burn a motor, each found on the drawing and confirmed.
_LOOKS: dict[str, tuple[tuple[str, str, str, str], ...]] = {
    "canister-power": (
        (
            "canister-look-ends",
            "Look: in to in, out to out",
            "The intake hose comes from the strainer, the return goes to the outlet.",
            "outlet",
        ),
        (
            "canister-look-clamps",
            "Look: every clamp on and tight",
            "Hose past all the ridges at both ends of both hoses, lid clamps shut.",
            "body",
        ),
        (
            "canister-look-tap",
            "Look: valves open, tap above the water",
            "Both valves open; no tap or bend under the water line.",
            "tap",
        ),
        (
            "canister-look-plug",
            "Look: drip loop",
            "The cable hangs lower than the socket before it rises to it.",
            "socket",
        ),
    ),
    "hangon-power": (
        (
            "hangon-look-full",
            "Look: the box is full and level",
            "Water stands at the spill; the box is level both ways.",
            "body",
        ),
        (
            "hangon-look-stem",
            "Look: the stem is home and under water",
            "Its strainer lies deep enough for some evaporation.",
            "intake",
        ),
        (
            "hangon-look-plug",
            "Look: drip loop",
            "The cable hangs lower than the socket before it rises to it.",
            "socket",
        ),
    ),
    "internal-power": (
        (
            "internal-look-under",
            "Look: all of it under water",
            "Pump and outlet below the line after evaporation too.",
            "filter",
        ),
    ),
    "sump-power": (
        (
            "sump-look-level",
            "Look: room for what runs back",
            "The mark in the sump leaves the free litres the sums ask.",
            "sump",
        ),
        (
            "sump-look-drain",
            "Look: drain open, return open",
            "Nothing in the overflow; the gate valve open.",
            "overflow",
        ),
        ("sump-look-plug", "Look: drip loop", "The cable hangs lower than the socket before it rises to it.", "socket"),
    ),
    "sponge-start": (
        (
            "sponge-look-valve",
            "Look: the check valve's arrow",
            "It points towards the tank; blow gently and no air comes back.",
            "air pump",
        ),
    ),
    "sheet-start": (
        (
            "sheet-look-valve",
            "Look: the check valve's arrow",
            "It points towards the tank; blow gently and no air comes back.",
            "air pump",
        ),
    ),
    "box-start": (
        (
            "box-look-valve",
            "Look: the check valve's arrow",
            "It points towards the tank; blow gently and no air comes back.",
            "air pump",
        ),
    ),
    "gravel-start": (
        (
            "gravel-look-valve",
            "Look: the check valve's arrow",
            "It points towards the tank; blow gently and no air comes back.",
            "air pump",
        ),
    ),
}


def _with_looks(steps: list[Step]) -> list[Step]:
    found: list[Step] = []
    for s in steps:
        found += [Step(id=i, title=t, detail=d, look_at=p) for i, t, d, p in _LOOKS.get(s.id, ())]
        found.append(s)
    return found


def _locks(step_id: str) -> tuple[str, ...]:
    """What must be done before a step, its looks included; a look waits for what its power step waits for."""
    for power, looks in _LOOKS.items():
        ids = tuple(look[0] for look in looks)
        if step_id == power:
            return _AFTER.get(power, ()) + ids
        if step_id in ids:
            return _AFTER.get(power, ())
    return _AFTER.get(step_id, ())


_BY_KIND = {
    "sponge": _sponge,
    "sheet": _sheet,
    "hang-on": _hang_on,
    "internal": _internal,
    "canister": _canister,
    "sump": _sump,
    "box": _box,
    "under-gravel": _under_gravel,
}


def fitting_steps(question: FittingStepsQuestion) -> FittingStepsAnswer:
    """The steps for a kind, in the order of doing.

    question: kind and sizes in cm, L, mm, m. Source: common practice.
    """
    w = Working()
    built = _BY_KIND[question.kind](question, w)
    built = _with_looks(built)
    ids = {s.id for s in built}
    steps = [s.model_copy(update={"after": [a for a in _locks(s.id) if a in ids]}) for s in built]
    return FittingStepsAnswer(
        verdict=f"{len(steps)} steps, in this order. Leak checks are part of the job.", working=w.lines, steps=steps
    )
