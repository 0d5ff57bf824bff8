"""The sump: water falls through an overflow to a second tank below and is pumped back."""

import numpy as np

from reedmace.core.contract import Working
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.common_steps import (
    cable_fault,
    leak_order,
    leak_steps,
    plug_inspection,
    socket_mark,
)
from reedmace.core.filter.kind_parts.fitting import MishapDraft, PowerCut, Purchase
from reedmace.core.filter.kind_parts.hosed import hose_fittings, stands_beneath, tap_fault
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.kind_parts.placement import OVER_RIM_CM, PartMark, PlacedIssue, ResolvedLayout, RunDraft
from reedmace.core.filter.kind_parts.steps import UNPLUG, WASH, WIRING, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.site.noise import DRAIN_FALL_CM
from reedmace.core.filter.site.site import SUMP_FROM_L, Site
from reedmace.core.flow.overflow import PIPE_L
from reedmace.core.quantity import formatting

OVER_CM = 10.0
"""Space over it for hands (common practice)."""


def _loop_words(rise_m: float, _: float) -> str:
    return (
        f"The loop is broken at the overflow, so the pump lifts the whole {formatting.metres(rise_m, '.2f')} from the"
        " sump."
    )


def _limits(t: FilterTable, mine: Bools, site: Site) -> list[Limit]:
    return [
        stands_beneath(t, mine, site, OVER_CM),
        Limit(
            mine & (t.width_cm > site.length_cm),
            lambda i: (
                f"is {formatting.cm(t.width_cm[i], 'g')} long, the tank above it"
                f" {formatting.cm.bare(site.length_cm, 'g')}"
            ),
            lambda _: "choose a shorter one",
        ),
        Limit(
            mine & (not site.drilled and not site.overflow_box),
            lambda _: "needs a drilled tank or an overflow box, and the tank has neither",
            lambda _: "hang an overflow box, or have the tank drilled by someone who does it for a living",
            "overflow_box",
            np.ones(len(t)),
        ),
    ]


def _steps(q: StepFacts, w: Working) -> list[Step]:
    over = w.line("over", "height for hands above it", f"{OVER_CM:g} cm", OVER_CM, "cm", "practice")
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
            detail=(
                f"Level, on a pad, with {formatting.cm(q.filter_height_cm, 'g')} and {formatting.cm(over)} over it. It"
                " must come out again."
            ),
            caution="Two people: glass edges, and a heavy box in a low place.",
        ),
        Step(
            id="sump-pipes",
            title="Drain and return",
            detail=(
                "Drain with a gate valve; return with a siphon break just under the surface. Dry-fit all of it first."
            ),
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
            caution=WIRING,
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
        *leak_steps("sump", "Dry tissue round bulkheads and unions.", "look along drain and return"),
    ]


def _marks(g: ResolvedLayout) -> list[PartMark]:
    return [
        PartMark("overflow", "overflow", g.intake_x, g.water),
        PartMark("outlet", "outlet", g.outlet_x, g.water - g.lay.outlet_depth_cm),
        PartMark("sump", "sump", g.body_x, g.foot + g.filter.height_cm),
        socket_mark(g),
    ]


def _runs(g: ResolvedLayout) -> list[RunDraft]:
    over = g.rim + OVER_RIM_CM
    back = [(g.outlet_x, over), (g.outlet_x, g.bottom - 6), (g.body_x, g.bottom - 6), (g.body_x, 25.0)]
    beside = g.body_x + 10
    down = [(g.intake_x, g.water - 10), (g.intake_x, g.bottom - 8), (beside, g.bottom - 8), (beside, 30.0)]
    return [
        RunDraft("return-hose", "return hose", back, g.bend),
        RunDraft("drain", "drain", down, g.bend),
    ]


def _faults(g: ResolvedLayout) -> list[PlacedIssue]:
    return cable_fault(g) + tap_fault(g)


def _fittings(g: ResolvedLayout) -> list[Purchase]:
    found = hose_fittings(g, 1)
    if not g.lay.siphon_break:
        found.append(
            Purchase("siphon break or drilled return", 1, "piece", "so that a power cut runs back only a little")
        )
    return found


def _mishaps(g: ResolvedLayout) -> list[MishapDraft]:
    space = f"the sump has room for {formatting.litres(g.sump_free_l)}."
    keeps = max(g.sump_free_l - PIPE_L, 0.0)
    found = [
        MishapDraft(
            "run-back",
            "Power cut: the return runs back",
            g.returned_cm,
            f"Until the return draws air, {formatting.litres(g.run_back_l)} with the pipes; {space}",
            "Raise the return or drill a siphon break; lower the sump's level.",
            keeps_l=keeps,
        )
    ]
    if g.lay.siphon_break:
        found.append(
            MishapDraft(
                "siphon-break-clogged",
                "Siphon break clogged at a power cut",
                max(g.lay.outlet_depth_cm, 0.0),
                "The return runs back past the clogged hole, down to its mouth.",
                "Clean the hole monthly; leave that much more site.",
                keeps_l=keeps,
            )
        )
    found.append(
        MishapDraft(
            "drain-blocked",
            "Drain blocked while it runs",
            0.0,
            "The return lifts the sump's own water and its chamber into the tank until its pump draws air.",
            "A second, dry drain; a return chamber too small to overfill the tank.",
        )
    )
    return found


def _caveats(_: Filter, site: Site) -> list[str]:
    if site.net_l < SUMP_FROM_L and site.water == "fresh":
        return ["Sumps come into their own from about 380 L (100 US gal) or in salt water."]
    return []


KIND = FilterKind(
    name="sump",
    title="Sump",
    about=KindAbout(
        called=("return pump", "sump pump", "sump filter", "sump"),
        how=(
            "Water falls over a weir and down a drain into a second tank below, through socks and media, and "
            "a pump returns it."
        ),
        good=(
            "the most water and media",
            "heater, skimmer and gear stand out of sight",
            "the level in the tank stays",
            "room for later",
        ),
        poor=(
            "wants a drilled tank or an overflow box",
            "plumbing, and its cost",
            "the drain gurgles until it is tuned",
            "runs back at every power cut: it must have room for that",
            "tanks on one sump share every disease",
        ),
        picked_for="Salt water, and tanks over about 380 L.",
        argued=(
            "For a beginner, say salt-water keepers, it is the easy road; others send beginners to something "
            "simpler. Bought or built is argued too."
        ),
        cleaning="Socks or floss each week to month, foam swished in tank water, overflow and pump wiped.",
        costs="The dearest, with tank, plumbing and pump. Socks are washed or replaced, the pump's impeller wears.",
        in_box=("a return pump; the sump itself is mostly separate",),
        besides=(
            "sump tank",
            "overflow or bulkheads",
            "drain and return pipe, a valve on the drain",
            "socks or floss",
            "media",
        ),
    ),
    order=5,
    prefix="sump",
    service_days=21,
    rise="return",
    loop_words=_loop_words,
    hosed=True,
    own_k=0.0,
    stemmed=False,
    media_in_path=False,
    outlet="bar-or-nozzle",
    drains_cm=DRAIN_FALL_CM,
    needs_air=False,
    closed=False,
    in_tank=False,
    pump_in_water="no",
    may_pair=False,
    on_rim=False,
    fill_most=1.0,
    packing=("foam-10", "foam-20", "ceramic-rings"),
    typical=Typical(
        smallest_lph=700,
        largest_lph=6000,
        figures={
            "max_head_m": (1.3, 0.45, 0.15),
            "watts": (5.7, 1.04, 0.2),
            "media_l": (2.8, 1.2, 0.35),
            "width_cm": (26, 0.67, 0.08),
            "depth_cm": (26, 0.25, 0.08),
            "height_cm": (29, 0.19, 0.08),
            "noise": (2.4, 0.03, 0.15),
            "price": (110, 0.69, 0.3),
            "face_cm2": (390, 0.54, 0.08),
            "foam_depth_cm": (8, 0, 0.08),
            "hose_bore_mm": (13, 0.39, 0.08),
            "tank_up_to_l": (54, 1.32, 0.25),
        },
    ),
    judged=Judgements(easy_clean=0.6, clear_water=0.95, hidden=1.0, flood_safety=0.4, expandable=1.0, young_safe=0.5),
    power_cut=PowerCut(
        minute="The tank runs back to its overflow edge: the sump must take it.",
        hour="Media in still water keep for hours; socks and trays above it dry.",
        night="Oxygen runs low in tank and sump: an air stone in each.",
        on_return="It starts by itself; watch the drain find its level.",
    ),
    proofs=(("bucket", "can be caught"), ("transit", "carries a float")),
    causes=(
        "A kink or a half-shut tap in the return.",
        "The sump's level is low: the pump lifts further, or draws air. Top it up.",
        "The return is longer or narrower than you entered: measure it.",
        "The pump is below its curve: unplug, clean the impeller and its well.",
    ),
    limits=_limits,
    space_over_cm=OVER_CM,
    steps=_steps,
    after={
        "sump-pipes": ("sump-drill", "sump-place"),
        "sump-fill": ("sump-pipes", "sump-media"),
        "sump-power": ("sump-fill",),
        "sump-tune": ("sump-power",),
        "sump-off": ("sump-power",),
        **leak_order("sump"),
    },
    inspections={
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
            plug_inspection("sump"),
        ),
    },
    marks=_marks,
    runs=_runs,
    faults=_faults,
    fittings=_fittings,
    mishaps=_mishaps,
    care=Care(
        title="Swish the sump's foam, wipe overflow and pump",
        share=0.2,
        minutes=20,
        steps=care_steps(
            "sump",
            (
                "socks",
                "Clean socks or floss in",
                "The dirty ones out in a bucket; wash them without soap and let them dry.",
            ),
            ("trays", "Foam swished in tank water", "One tray at a time; rock and rings are left alone."),
            (
                "overflow",
                "Overflow comb and siphon break wiped",
                "A clogged hole runs the sump over at the next power cut.",
                WASH,
            ),
            ("pump", "Return pump, twice a year", "Unplugged; impeller and its well cleaned.", UNPLUG),
            (
                "level",
                "Running level at its mark",
                "Topped up with fresh water; the free litres for run-back are there.",
            ),
            ("seen", "Flow and drain as before", "Full and silent, the emergency drain dry."),
        ),
        worn=(
            Worn("return pump's impeller", 1095, "it rattles, or its flow falls"),
            Worn("socks", 365, "they stay slimy after washing"),
        ),
    ),
    caveats=_caveats,
    body_x_share=0.5,
)
