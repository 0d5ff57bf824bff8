"""The hang-on: a box on the rim; a pump lifts into it and the water spills back."""

import math

import numpy as np

from reedmace.core.contract import Working
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable
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
from reedmace.core.filter.kind_parts.fitting import MishapDraft, PowerCut, Purchase
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.kind_parts.media_path import COARSE_PLACE, PATH_WORDS
from reedmace.core.filter.kind_parts.placement import PartMark, PlacedIssue, ResolvedLayout, RunDraft, issue_at
from reedmace.core.filter.kind_parts.steps import UNPLUG, WIRING, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting

RIM_GAP_CM = 6.0
FILLING = 1.5
"""Water that fills the box, as a multiple of its media (memory)."""
STEM_SPARE_CM = 4.0


def _loop_words(rise_m: float, _: float) -> str:
    return (
        f"It lifts to its lip, {formatting.cm(rise_m * 100, '.1f')} above the water. Every centimetre of evaporation"
        " adds to that and costs flow."
    )


def _room_behind(site: Site, needed_cm: float) -> str:
    """Remedy for too little room behind the glass: a full tank is not moved."""
    if site.filled:
        return "hang it on an end pane, or choose a shallower one: a full tank is not moved"
    return f"move the tank {formatting.cm(needed_cm - site.behind_cm, 'g')} further off the wall"


def _limits(t: FilterTable, mine: Bools, site: Site) -> list[Limit]:
    return [
        Limit(
            mine & (site.behind_cm < t.behind_cm),
            lambda i: (
                f"needs {formatting.cm(t.behind_cm[i], 'g')} behind the tank, you have"
                f" {formatting.cm.bare(site.behind_cm, 'g')}"
            ),
            lambda i: _room_behind(site, t.behind_cm[i]),
            "behind_cm",
            t.behind_cm,
        ),
        Limit(
            mine & (site.rim_to_water_cm > RIM_GAP_CM),
            lambda _: f"wants the water near the rim, yours is {formatting.cm(site.rim_to_water_cm, 'g')} below",
            lambda _: f"fill the tank {formatting.cm(site.rim_to_water_cm - RIM_GAP_CM, 'g')} higher",
            "rim_to_water_cm",
            np.full(len(t), RIM_GAP_CM),
        ),
        Limit(
            mine & (t.width_cm > site.length_cm),
            lambda i: (
                f"is {formatting.cm(t.width_cm[i], 'g')} wide, the tank {formatting.cm.bare(site.length_cm, 'g')}"
            ),
            lambda _: "choose a smaller one",
        ),
    ]


def _steps(q: StepFacts, w: Working) -> list[Step]:
    fill = w.line(
        "box",
        "media volume × 1.5, at most its body",
        f"{q.media_l:g} × {FILLING:g}",
        q.filling_l(FILLING),
        "L to fill the box",
        "memory",
    )
    return [*_mounting(q), *_starting(q, formatting.litres(fill, ".1f"))]


def _mounting(q: StepFacts) -> list[Step]:
    pad = (
        " The pad’s fuzzy side faces in, away from the wheel, so that dirt is caught before it."
        if q.turning_wheel
        else ""
    )
    mid = (
        " Its strainer half-way up stays shut unless you want surface dirt too: open, it shares the suction."
        if q.mid_strainer
        else ""
    )
    return [
        Step(
            id="hangon-body",
            title="Hang the empty body first",
            detail=f"On the rim, with {formatting.cm(q.behind_cm, 'g')} behind the tank; nothing fitted yet.",
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
            detail=(
                f"{PATH_WORDS[q.media_path]} So the coarse foam goes {COARSE_PLACE[q.media_path]}; not crammed. Take"
                f" bags off.{pad}"
            ),
            fault="Overfilled baskets lift the lid, and water goes over the back.",
        ),
        Step(
            id="hangon-intake",
            title="Push the intake stem fully home",
            detail=f"It should reach about {formatting.cm(q.reach_cm)} down; an extension is cut to depth.{mid}",
        ),
        *([guard_step("hangon")] if q.needs_guard else []),
        Step(
            id="hangon-water-line",
            title="Fill the tank near the lip",
            detail=(
                f"Your water line is {formatting.cm(q.rim_to_water_cm, 'g')} under the rim; every centimetre of fall"
                " costs flow and splashes."
            ),
        ),
    ]


def _starting(q: StepFacts, filling: str) -> list[Step]:
    bar = " Turn the bars up while the box fills, then back at the wheel." if q.bar_tilts else ""
    dry = "Never run the motor dry" + ("." if q.pump_wet else ": it stands outside the water and burns out.")
    return [
        Step(
            id="hangon-prime",
            title="Fill the box before power",
            detail=f"About {filling} of treated water, until it spills from the front.{bar}",
            caution=dry,
        ),
        Step(
            id="hangon-power",
            title="Dry the plug and switch on",
            detail="Cable with a drip loop.",
            caution=WIRING,
            normal="A short roar while air leaves.",
            fault="Grinding or banging that goes on: no water at the impeller. Unplug and refill.",
        ),
        *leak_steps("hangon", "A dry hand along the body and the wall behind it.", "look at the floor behind the tank"),
        Step(
            id="hangon-flow",
            title="Set the flow and put the lid on",
            detail="Then catch the spill in a jug for the flow test below, if it can be caught.",
        ),
    ]


def _marks(g: ResolvedLayout) -> list[PartMark]:
    return [
        PartMark("intake", "intake", g.intake_x, g.water - g.intake_depth),
        PartMark("body", "body", g.body_x, g.rim),
        socket_mark(g),
    ]


def _runs(_: ResolvedLayout) -> list[RunDraft]:
    return []


def _faults(g: ResolvedLayout) -> list[PlacedIssue]:
    found = cable_fault(g) + intake_faults(g)
    if g.site.behind_cm < g.filter.behind_cm:
        found.append(
            issue_at(
                "body",
                g.body_x,
                g.rim,
                f"It needs {formatting.cm(g.filter.behind_cm, 'g')} behind the tank and has"
                f" {formatting.cm.bare(g.site.behind_cm, 'g')}.",
                f"{formatting.opening(_room_behind(g.site, g.filter.behind_cm))}.",
            )
        )
    return found


def _fittings(g: ResolvedLayout) -> list[Purchase]:
    found = [Purchase("spare O-ring or seal", 1, "piece", "a worn seal drips", "spare")]
    wanted = g.site.rim_to_water_cm + g.intake_depth + STEM_SPARE_CM
    if wanted - g.filter.height_cm > 1:
        found.append(
            Purchase(
                "intake extension",
                float(math.ceil(wanted - g.filter.height_cm)),
                "cm",
                f"the stem reaches about {formatting.cm(g.filter.height_cm, 'g')}; cut to depth",
            )
        )
    return found


def _mishaps(g: ResolvedLayout) -> list[MishapDraft]:
    return [
        MishapDraft(
            "spills-behind",
            "Box tilted, cracked or clogged: it spills behind",
            g.intake_depth,
            "The pump goes on lifting until its stem draws air.",
            "Level it, underfill the basket, and shorten the stem: each {cm} saves {per_cm}.",
        )
    ]


def _caveats(f: Filter, site: Site) -> list[str]:
    found = []
    if f.wheel_m2:
        found.append("The wheel keeps its film when the pad is changed: rinse it in tank water, never scrub it.")
    if not f.restarts_alone:
        found.append("After a power cut refill its box before it runs, or the motor may burn out.")
    if site.lid:
        found.append("A lid closed to the edges must be cut out for it.")
    return found


TYPICAL = Typical(smallest_lph=150, largest_lph=1800, figures={
    "max_head_m": (0.66, 0.38, 0.15), "watts": (6.6, 0.81, 0.2), "media_l": (0.91, 1.04, 0.35),
    "width_cm": (23, 0.51, 0.08), "depth_cm": (11, 0.35, 0.08), "height_cm": (21, 0.3, 0.08),
    "behind_cm": (8.4, 0.39, 0.08), "noise": (2.2, 0.36, 0.15), "price": (39, 0.62, 0.3),
    "tube_bore_mm": (20, 0.34, 0.08), "face_cm2": (180, 0.84, 0.08), "foam_depth_cm": (4.4, 0.05, 0.08),
    "tank_up_to_l": (130, 1.15, 0.25), "lip_cm": (2.2, 0.14, 0.08),
})  # fmt: skip


KIND = FilterKind(
    name="hang-on",
    title="Hang-on",
    about=KindAbout(
        called=(
            "hang-on-back filter",
            "hang-on back filter",
            "hang on back filter",
            "hang on back",
            "hang-on-back",
            "hang-on filter",
            "hang on filter",
            "waterfall filter",
            "hob filter",
            "hang on",
            "hang-on",
            "hob",
        ),
        how=(
            "A pump lifts water through a stem into a box on the rim. It rises through foam and media and "
            "spills back over a lip."
        ),
        good=(
            "much flow for its price",
            "reached and cleaned in minutes",
            "takes any media",
            "the spill brings oxygen",
            "with floss it polishes the water",
        ),
        poor=(
            "wants room behind the glass, a socket and a level rim",
            "its intake takes fry and shrimp unless it is guarded",
            "where the motor is outside it does not start dry after a power cut",
            "spills behind if it is tilted, crammed or clogged",
            "the spill splashes when the water stands low",
        ),
        picked_for=(
            "A first tank, up to about ten tanks, goldfish and other messy fish, and whoever wants clear water."
        ),
        argued=(
            "Some fault its throw-away cartridges, which carry the bacteria out with them: foam and hard "
            "media in their place settle that."
        ),
        cleaning=(
            "Basket out to a bucket of tank water, swish foam and rings, change floss that is clogged, every "
            "two weeks to a month. Never scrub the box. Fill it before power."
        ),
        costs="Three to four times a sponge. Seal and impeller wear, after two or three years.",
        in_box=("box with motor", "intake stem and strainer", "a cartridge or basket", "lid"),
        besides=(
            "coarse foam and rings in place of the cartridge",
            "a guard sponge for the intake with small animals",
            "an extension of the stem in a deep tank",
        ),
    ),
    order=2,
    prefix="hangon",
    service_days=21,
    rise="lip",
    loop_words=_loop_words,
    hosed=False,
    own_k=5.0,
    stemmed=True,
    media_in_path=True,
    outlet="lip",
    needs_air=False,
    closed=False,
    in_tank=False,
    pump_in_water="as-built",
    may_pair=True,
    on_rim=True,
    fill_most=0.85,
    packing=("foam-20", "floss", "ceramic-rings"),
    typical=TYPICAL,
    judged=Judgements(easy_clean=0.95, clear_water=0.65, hidden=0.5, flood_safety=0.6, expandable=0.5, young_safe=0.35),
    power_cut=PowerCut(
        minute="The box drains back to its sill.",
        hour="Media above the sill stand wet but still.",
        night="What has drained dries and dies; a motor outside the water must not start dry.",
        on_return="Refill the box with tank water before power, unless its pump stands in the water.",
    ),
    proofs=(("bucket", "can be caught"), ("level-drop", "fills its box"), ("transit", "carries a float")),
    causes=(
        "The water stands low: every centimetre under the lip costs flow. Top it up.",
        "A guard or strainer hung with dirt: squeeze it in tank water.",
        "Media swollen with dirt: unplug, squeeze the coarse foam in tank water, and time it again.",
        "The stem is not fully home, or its extension leaks air.",
        "The flow knob is turned down.",
        "The impeller is fouled with sand or hair: unplug, clean it and its well.",
    ),
    limits=_limits,
    steps=_steps,
    after={
        "hangon-level": ("hangon-body",),
        "hangon-media": ("hangon-level",),
        "hangon-prime": ("hangon-level", "hangon-media", "hangon-intake", "hangon-guard", "hangon-water-line"),
        "hangon-power": ("hangon-prime",),
        **leak_order("hangon"),
        "hangon-flow": ("hangon-power",),
    },
    inspections={
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
            plug_inspection("hangon"),
        ),
    },
    marks=_marks,
    runs=_runs,
    faults=_faults,
    fittings=_fittings,
    mishaps=_mishaps,
    care=Care(
        title="Swish the media, change the floss",
        share=0.5,
        minutes=20,
        steps=care_steps(
            "hangon",
            ("unplug", "Unplug it", "It stops at once and drains back to its sill.", UNPLUG),
            (
                "bucket",
                "A bucket of old tank water",
                (
                    "Draw it from the tank before anything is lifted: never tap water on the film, for its chlorine"
                    " kills it."
                ),
            ),
            (
                "basket",
                "Lid off, basket out to the sink in tank water",
                "Swish foam and rings in the bucket; floss that is clogged is changed, never all of it with the foam.",
            ),
            ("box", "Tip the box out", "Pour the mud away; never scrub it, for its walls carry film."),
            ("seal", "Look at the O-ring and the impeller", "Seal clean and greased; hair and sand out of the well."),
            ("back", "Basket back, not crammed; stem home", "Coarse lowest; the lid shuts without force."),
            ("fill", "Fill the box with tank water", "Until it spills from the front.", "Never run the motor dry."),
            ("plug", "Plug dry, drip loop, switch on", "A short roar while air leaves.", WIRING),
            ("seen", "Flow seen, and nothing drips behind", "A dry hand along the wall. Write it down; time the flow."),
        ),
        worn=(
            Worn("O-ring or seal", 730, "a drop under the motor"),
            Worn("impeller", 1095, "it rattles, or starts only when shaken"),
        ),
    ),
    caveats=_caveats,
)
