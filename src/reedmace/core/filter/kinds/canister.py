"""The canister: a sealed body below the water, hoses over the rim."""

from collections.abc import Iterator

from reedmace.core.contract import Working
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.common_steps import (
    cable_fault,
    guard_step,
    intake_faults,
    leak_order,
    leak_steps,
    plug_inspection,
    socket_mark,
)
from reedmace.core.filter.kind_parts.fitting import PowerCut, Purchase
from reedmace.core.filter.kind_parts.hosed import hose_fittings, hose_mishaps, stands_beneath, tap_fault
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.media_path import COARSE_PLACE, PATH_WORDS, Priming
from reedmace.core.filter.kind_parts.placement import (
    APART_SHARE,
    OVER_RIM_CM,
    PartMark,
    PartRole,
    PlacedIssue,
    ResolvedLayout,
    RunDraft,
    issue_at,
)
from reedmace.core.filter.kind_parts.steps import UNPLUG, WIRING, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting

OVER_CM = 8.0
"""Space over the body for the hoses (common practice)."""
FILLING = 2.0
"""Water that fills the body, as a multiple of its media (memory)."""
EMPTY_KG = 4.0


def _loop_words(_: float, above_cm: float) -> str:
    if above_cm > 0:
        return (
            f"The outlet stands {formatting.cm(above_cm, 'g')} above the water, so the loop is broken there and the"
            " pump lifts that much."
        )
    return (
        "Both hose ends are under water: the falling side carries the rising one, and the height costs nothing however"
        " low the filter stands."
    )


_PRIMING: dict[Priming, str] = {
    "fill": "Fill the body with about {} before the lid goes on, and the hoses with a jug.",
    "button": "Open the intake and press the primer until about {} have run in and it rises no more.",
    "self": "Wet it with about {} in the body; its pump draws the rest itself once it runs.",
}


def _outlet_words(depth_cm: float) -> str:
    if depth_cm < 0:
        return f"The outlet {formatting.cm(-depth_cm, 'g')} above the surface, where it splashes."
    return f"Outlet or spray bar {formatting.cm(depth_cm, 'g')} under the surface, holes to the front."


def _steps(q: StepFacts, w: Working) -> list[Step]:
    prime = w.line(
        "prime",
        "media volume × 2, at most its body",
        f"{q.media_l:g} × {FILLING:g}",
        q.filling_l(FILLING),
        "L to fill the body",
        "memory",
    )
    return [*_mounting(q, formatting.kg(prime + EMPTY_KG)), *_starting(q, formatting.litres(prime))]


def _mounting(q: StepFacts, weight: str) -> list[Step]:
    return [
        Step(
            id="canister-feet",
            title="Feet or pads on first",
            detail="They are forgotten once the body is full.",
            caution=f"Full it weighs about {weight}: lift with both hands and a straight back.",
        ),
        Step(
            id="canister-media",
            title="Rinse and load the media",
            detail=(
                f"{PATH_WORDS[q.media_path]} Coarse foam {COARSE_PLACE[q.media_path]}, then medium or fine, then"
                " ceramic; chemical last if at all. Take bags off, seat every tray."
            ),
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
            detail=f"At opposite ends. {_outlet_words(q.outlet_depth_cm)}",
        ),
        *([guard_step("canister")] if q.needs_guard else []),
        Step(
            id="canister-hose",
            title="Now measure and cut the hose",
            detail=f"{q.hose_plan}place first, measure, then cut long and square: hose cannot be cut longer. No kinks.",
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
    ]


def _starting(q: StepFacts, filling: str) -> list[Step]:
    return [
        Step(
            id="canister-prime",
            title="Prime with tank water",
            detail=f"{_PRIMING[q.priming].format(filling)} Not chlorinated tap water. Then open both valves.",
            caution="Never start a siphon by mouth.",
        ),
        Step(
            id="canister-power",
            title="Dry the plug and switch on",
            detail=(
                "In a small tank start with the water low: the jet may go over the rim. Turn the outlet to the glass"
                " and throttle the outlet, never the intake."
            ),
            caution=WIRING,
            normal=(
                "It stops, starts, roars and spits bubbles for minutes while it clears itself: not a fault."
                if q.priming == "self"
                else "It may roar and spit bubbles for a minute or two while air leaves."
            ),
            fault="Still roaring after half an hour: tilt the body gently; check the intake is under water.",
        ),
        *leak_steps("canister", "Dry tissue round lid, valves and both nozzles.", "look along both hoses"),
    ]


def _marks(g: ResolvedLayout) -> list[PartMark]:
    return [
        PartMark("intake", "intake", g.intake_x, g.water - g.intake_depth),
        PartMark("outlet", "outlet", g.outlet_x, g.water - g.lay.outlet_depth_cm),
        PartMark("tap", "tap", g.outlet_x, g.water + g.lay.tap_above_water_cm),
        PartMark("body", "body", g.body_x, g.top),
        socket_mark(g),
    ]


def _runs(g: ResolvedLayout) -> list[RunDraft]:
    level = max(g.top + g.bend, min(g.bottom - 6, g.top + 14))
    over, wide = g.rim + OVER_RIM_CM, g.filter.width_cm * 0.2

    def run(x: float, nozzle: float) -> list[tuple[float, float]]:
        return [(x, over), (x, level), (nozzle, level), (nozzle, g.top)]

    return [
        RunDraft("intake-hose", "intake hose", run(g.intake_x, g.body_x + wide), g.bend),
        RunDraft("return-hose", "return hose", run(g.outlet_x, g.body_x - wide), g.bend),
    ]


def _stand_faults(g: ResolvedLayout) -> Iterator[PlacedIssue]:
    if g.top > g.water:
        yield issue_at(
            "body",
            g.body_x,
            g.top,
            f"The canister's lid stands {formatting.cm(g.top - g.water)} above the water line: it will not prime"
            " and sucks air.",
            "Stand it lower.",
        )
    if g.top + g.bend > g.bottom and abs(g.body_x - g.length / 2) < g.length / 2:
        yield issue_at(
            "return-hose",
            g.body_x,
            g.top,
            f"{formatting.cm(max(g.bottom - g.top, 0))} over the canister are too few for a bend of"
            f" {formatting.cm(g.bend)}: the hose kinks.",
            "Use ribbed hose, stand it lower, or beside the stand.",
        )


def _faults(g: ResolvedLayout) -> Iterator[PlacedIssue]:
    yield from cable_fault(g) + tap_fault(g) + intake_faults(g)
    yield from _stand_faults(g)
    outlet: tuple[PartRole, float, float] = ("outlet", g.outlet_x, g.water - g.lay.outlet_depth_cm)
    if abs(g.intake_x - g.outlet_x) < APART_SHARE * g.length:
        yield issue_at(
            *outlet,
            f"The outlet stands {formatting.cm(abs(g.intake_x - g.outlet_x))} from the intake: water goes round in"
            " a corner.",
            "Put them at opposite ends.",
        )
    if g.lay.outlet_depth_cm < -1:
        yield issue_at(
            *outlet,
            f"The outlet stands {formatting.cm(-g.lay.outlet_depth_cm, 'g')} above the water: it splashes, and the"
            " pump lifts that much.",
            f"Lower it to about {formatting.cm(5)} under the surface, or just at it.",
        )


def _fittings(g: ResolvedLayout) -> list[Purchase]:
    return [*hose_fittings(g, 2), Purchase("spare O-ring or seal", 1, "piece", "a worn seal drips", "spare")]


def _caveats(_: Filter, site: Site) -> list[str]:
    found = ["Heavy and wet to clean; test its flow monthly, since the dirt cannot be seen."]
    if site.water == "salt":
        found.append("Salt-water keepers blame the waste a canister stores for nitrate: clean it often.")
    return found


TYPICAL = Typical(smallest_lph=200, largest_lph=4500, figures={
    "max_head_m": (1.1, 0.58, 0.15), "watts": (7.7, 1.04, 0.2), "media_l": (2.9, 1.05, 0.35),
    "width_cm": (18, 0.35, 0.08), "depth_cm": (18, 0.32, 0.08), "height_cm": (32, 0.35, 0.08),
    "noise": (1.2, 0.46, 0.15), "price": (82, 0.74, 0.3), "face_cm2": (220, 0.6, 0.08),
    "foam_depth_cm": (8.9, -0.01, 0.08), "hose_bore_mm": (14, 0.32, 0.08), "tank_up_to_l": (150, 1.09, 0.25),
})  # fmt: skip


KIND = FilterKind(
    name="canister",
    title="Canister",
    about=KindAbout(
        called=("external canister filter", "canister filter", "external filter", "external power filter", "canister"),
        how=(
            "Water runs down a hose into a closed body below the tank, through trays of media, and a pump "
            "sends it back up. With both ends under water the height costs nothing; hoses, media and dirt do."
        ),
        good=(
            "out of sight and quiet",
            "much media, any kind of it",
            "strains, houses bacteria and holds carbon at once",
            "needs only a few centimetres behind the tank",
        ),
        poor=(
            "dear",
            "heavy and wet to clean, so it is put off",
            "the dirt in it is not seen",
            "a leak empties onto the floor",
            "gives much less than its label once it is packed",
        ),
        picked_for="Show tanks, larger tanks, turtles, quiet rooms, planted tanks.",
        argued=(
            "Salt-water keepers blame the waste it stores for nitrate. Elsewhere one side praises months "
            "without care, the other calls that a trap: the flow, timed each month, says which it is."
        ),
        cleaning=(
            "Both valves shut, unplug, out to a tub; coarse foam first, half the hard media at most, all in "
            "tank water. Seal clean and greased, lid evenly, prime, then power. By the flow test: weeks to "
            "many months."
        ),
        costs="Ten times a sponge and more. Seal rings, impeller, and hoses wear.",
        in_box=(
            "body with pump and trays",
            "intake and outlet pipes",
            "two hoses",
            "valves or a quick release",
            "some foam and media",
        ),
        besides=("media for trays that come empty", "hose clamps", "a guard sponge", "a tray with a leak alarm"),
    ),
    order=4,
    prefix="canister",
    service_days=60,
    rise="outlet",
    loop_words=_loop_words,
    hosed=True,
    own_k=0.0,
    stemmed=False,
    media_in_path=True,
    outlet="bar-or-nozzle",
    needs_air=False,
    closed=True,
    in_tank=False,
    pump_in_water="no",
    may_pair=True,
    on_rim=False,
    fill_most=1.0,
    packing=("foam-10", "foam-20", "ceramic-rings"),
    typical=TYPICAL,
    judged=Judgements(easy_clean=0.3, clear_water=0.85, hidden=0.95, flood_safety=0.35, expandable=0.6, young_safe=0.4),
    power_cut=PowerCut(
        minute="Nothing leaks: it stands full and closed.",
        hour="The film uses up the oxygen shut in with it.",
        night="It turns airless within hours and dies; what comes out first is foul.",
        on_return="After more than an hour or two: unplug, open, rinse in tank water, refill, then start.",
    ),
    proofs=(("bucket", "can be caught"), ("transit", "carries a float")),
    causes=(
        "A kink in the hose: look along its whole run.",
        "A valve part shut: open both fully and time it again.",
        "Media packed or dirty: unplug, open, squeeze the coarse foam in tank water, and time it again.",
        "Air locked in the head: tilt the body gently while it runs.",
        "Hose narrower or longer than you entered: measure it.",
        "The pump is below its curve: unplug, clean the impeller and its well.",
    ),
    limits=lambda t, mine, site: [stands_beneath(t, mine, site, OVER_CM)],
    space_over_cm=OVER_CM,
    steps=_steps,
    after={
        "canister-place": ("canister-feet", "canister-media"),
        "canister-hose": ("canister-place", "canister-ends"),
        "canister-clamps": ("canister-hose",),
        "canister-valves": ("canister-media", "canister-clamps"),
        "canister-prime": ("canister-valves", "canister-guard"),
        "canister-power": ("canister-prime",),
        **leak_order("canister"),
    },
    inspections={
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
            plug_inspection("canister"),
        ),
    },
    marks=_marks,
    runs=_runs,
    faults=lambda g: list(_faults(g)),
    fittings=_fittings,
    mishaps=hose_mishaps,
    care=Care(
        title="Open and rinse the canister",
        share=0.5,
        minutes=45,
        steps=care_steps(
            "canister",
            ("valves", "Both valves shut", "In and out, before anything is loosened."),
            ("unplug", "Unplug it", "And a heater built in: never dry, never hot into cold.", UNPLUG),
            (
                "quick",
                "Quick releases off, carry it level",
                "To a bath or outdoors, never over a carpet.",
                "Heavy when full: two hands, straight back.",
            ),
            (
                "bucket",
                "A bucket of old tank water",
                (
                    "Draw it from the tank before anything is lifted: never tap water on the film, for its chlorine"
                    " kills it."
                ),
            ),
            ("open", "Open it in a tub", "Clamps criss-cross; keep the trays in their order."),
            ("coarse", "Coarse foam first", "Squeezed in tank water until it runs fair."),
            (
                "hard",
                "Half the hard media at the most",
                "Swished, not scrubbed; the other half is left alone this time.",
            ),
            ("impeller", "Impeller and well", "Slime and hair out; look at the shaft."),
            ("seal", "O-ring clean and greased", "Look for a nick; a hair under it drips for weeks."),
            ("trays", "Trays seated, lid on criss-cross", "A lid that will not close means a tray is not down."),
            ("prime", "Back in its place, valves open, primed with tank water", "Not with chlorinated tap water."),
            ("plug", "Plug dry, drip loop, switch on", "It spits bubbles for minutes; tip it to and fro.", WIRING),
            ("seen", "Dry hand round the lid and hoses, flow timed", "Now, after an hour, tomorrow."),
        ),
        worn=(
            Worn("O-ring", 730, "a drop under the lid"),
            Worn("impeller and shaft", 1460, "it rattles, or starts only when shaken"),
            Worn("hoses", 1825, "stiff, yellow, loose on their nozzles"),
        ),
    ),
    caveats=_caveats,
)
