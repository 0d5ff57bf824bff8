"""The internal: a small pump and its media inside the tank."""

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.common_steps import cable_fault, guard_step, socket_mark
from reedmace.core.filter.kind_parts.fitting import MishapDraft, PowerCut, Purchase
from reedmace.core.filter.kind_parts.in_tank import stands_under
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.placement import PartMark, ResolvedLayout, RunDraft
from reedmace.core.filter.kind_parts.steps import UNPLUG, WASH, WIRING, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.quantity import formatting

UNDER_CM = 3.0


def _loop_words(_: float, __: float) -> str:
    return "It stands in the water it moves: there is nothing to lift."


def _steps(q: StepFacts, w: Working) -> list[Step]:
    w.sum(
        "under",
        "water depth − filter height",
        {"water depth": q.water_depth_cm, "filter height": q.filter_height_cm},
        "cm",
        "geometry",
    )
    return [
        Step(
            id="internal-media",
            title="Foam in, cartridge out",
            detail="A washable foam keeps the film; a thrown-away cartridge takes it along. Rinse it first.",
        ),
        Step(
            id="internal-place",
            title="Hold it against a side pane",
            detail=(
                f"Press the suckers on below the water line; it stands {formatting.cm(q.filter_height_cm, 'g')} high."
                " Its height sets the ripple."
            ),
            caution=WASH,
        ),
        *([guard_step("internal")] if q.needs_guard else []),
        Step(
            id="internal-power",
            title="Dry the plug and switch on",
            detail="Only with the whole pump under water. Cable with a drip loop.",
            caution=WIRING,
            normal="A few bubbles spat out, then a steady push of water.",
            fault="Rattling that goes on: air in the impeller. Tilt it under water.",
        ),
        Step(
            id="internal-aim",
            title="Aim the outlet",
            detail="Along the long side, rippling the surface; against the glass for slow swimmers.",
        ),
    ]


def _marks(g: ResolvedLayout) -> list[PartMark]:
    return [PartMark("filter", "filter", g.intake_x, g.water - UNDER_CM), socket_mark(g)]


def _runs(_: ResolvedLayout) -> list[RunDraft]:
    return []


def _fittings(_: ResolvedLayout) -> list[Purchase]:
    return []


def _mishaps(_: ResolvedLayout) -> list[MishapDraft]:
    return [
        MishapDraft(
            "none",
            "Nothing leaves the tank",
            0.0,
            "The whole filter stands in its own water.",
            "Mind the cable: a drip loop.",
        )
    ]


KIND = FilterKind(
    name="internal",
    title="Internal",
    about=KindAbout(
        called=(
            "internal power filter",
            "internal filter",
            "submersible filter",
            "submersible power filter",
            "in-tank filter",
            "internal",
        ),
        how=(
            "A small pump with a chamber of foam stands in the water or on the inner rim. It draws through "
            "the foam and blows out at the top."
        ),
        good=(
            "cheap, plugged in within minutes",
            "no hose and little that could flood",
            "the sunk type is quiet and can be aimed",
        ),
        poor=(
            "takes room in the tank and is hard to hide",
            "little media",
            "a bare grate takes small animals",
            "its jet is often too strong for slow fish",
        ),
        picked_for="Small and middling tanks, quarantine, and extra movement beside another filter.",
        argued=(
            "Not for goldfish or turtles, say most: too little media for their dirt. Cartridges are thrown "
            "away with their film; foam in their place mends that."
        ),
        cleaning="A scoop or bag under it, out to a bucket of tank water, squeeze the foam, every two to four weeks.",
        costs="Two to three times a sponge. Impeller and suction cups wear.",
        in_box=("pump and chamber", "cartridge or foam", "suction cups", "nozzle or a short bar"),
        besides=("foam in place of a cartridge", "fine foam or mesh before the grate with small animals"),
    ),
    order=3,
    prefix="internal",
    service_days=21,
    rise="none",
    loop_words=_loop_words,
    hosed=False,
    own_k=3.0,
    stemmed=False,
    media_in_path=True,
    outlet="nozzle",
    needs_air=False,
    closed=False,
    in_tank=True,
    pump_in_water="yes",
    may_pair=True,
    on_rim=False,
    fill_most=1.0,
    packing=("foam-20",),
    typical=Typical(
        smallest_lph=120,
        largest_lph=1500,
        figures={
            "max_head_m": (0.62, 0.62, 0.15),
            "watts": (6.2, 0.95, 0.2),
            "media_l": (0.62, 1.07, 0.35),
            "width_cm": (11, 0.28, 0.08),
            "depth_cm": (7.8, 0.29, 0.08),
            "height_cm": (24, 0.49, 0.08),
            "noise": (2.2, 0.24, 0.15),
            "price": (28, 0.74, 0.3),
            "tube_bore_mm": (12, 0.02, 0.08),
            "face_cm2": (100, 0.77, 0.08),
            "foam_depth_cm": (5, -0, 0.08),
            "tank_up_to_l": (120, 1.22, 0.25),
        },
    ),
    judged=Judgements(easy_clean=0.6, clear_water=0.4, hidden=0.2, flood_safety=0.95, expandable=0.3, young_safe=0.3),
    power_cut=PowerCut(
        minute="The water stands still.",
        hour="The film sits in the tank's own water and is well.",
        night="Oxygen runs low; a battery air pump carries the tank.",
        on_return="It starts by itself. See that water moves.",
    ),
    proofs=(("transit", "carries a float"), ("bucket", "can be caught")),
    causes=(
        "Dirty foam: lift it in a scoop, squeeze it in tank water, and time it again.",
        "A grate or guard hung with leaves: wipe it.",
        "Hair or snail shell in the impeller's well: unplug, clean it.",
        "The nozzle is turned down.",
    ),
    limits=stands_under,
    steps=_steps,
    after={
        "internal-power": ("internal-media", "internal-place", "internal-guard"),
        "internal-aim": ("internal-power",),
    },
    inspections={
        "internal-power": (
            (
                "internal-look-under",
                "Look: all of it under water",
                "Pump and outlet below the line after evaporation too.",
                "filter",
            ),
        ),
    },
    marks=_marks,
    runs=_runs,
    faults=cable_fault,
    fittings=_fittings,
    mishaps=_mishaps,
    care=Care(
        title="Squeeze the foam",
        share=0.5,
        minutes=15,
        steps=care_steps(
            "internal",
            ("unplug", "Unplug it", "And every heater that may stand dry.", UNPLUG),
            (
                "bucket",
                "A bucket of old tank water",
                (
                    "Draw it from the tank before anything is lifted: never tap water on the film, for its chlorine"
                    " kills it."
                ),
            ),
            ("scoop", "A scoop or tub under it", "Before it is lifted: dirt falls out of the grate."),
            (
                "foam",
                "Squeeze the foam in the bucket",
                (
                    "Half of it where there are two pieces. A throw-away cartridge takes its film with it: foam in its"
                    " place keeps it."
                ),
            ),
            ("impeller", "Wipe impeller and well", "Hair and sand stop it."),
            ("back", "Back, under water, and plug dry", "No air left inside.", WIRING),
            ("seen", "Flow seen", "The surface moves as before. Write it down; time the flow."),
        ),
        worn=(
            Worn("impeller", 1095, "it rattles, or starts only when shaken"),
            Worn("suction cups", 540, "it slips down"),
        ),
    ),
    messy=("clogs within days under {who}", "use it as a second filter beside a hang-on or a canister"),
)
