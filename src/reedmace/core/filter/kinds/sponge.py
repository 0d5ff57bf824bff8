"""The sponge: foam round a lift tube, driven by air."""

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts import air_driven
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.fitting import Purchase
from reedmace.core.filter.kind_parts.in_tank import stands_under
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.placement import PlacedIssue, ResolvedLayout
from reedmace.core.filter.kind_parts.steps import WASH, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.flow.airlift import UPLIFT_SPARE_CM
from reedmace.core.quantity import formatting
from reedmace.core.tank.evaporation import TANK_DROP_CM


def _steps(q: StepFacts, w: Working) -> list[Step]:
    under = w.sum(
        "outlet",
        "water depth − filter height",
        {"water depth": q.water_depth_cm, "filter height": q.filter_height_cm},
        "cm under the surface",
        "geometry",
    )
    pump, valve, start = air_driven.air_steps("sponge")
    return [
        Step(
            id="sponge-height",
            title="Check the height",
            detail=(
                f"It stands {formatting.cm(q.filter_height_cm, 'g')} high in {formatting.cm(q.water_depth_cm)} of"
                f" water, so its outlet sits {formatting.cm(max(under, 0))} under."
                f" {air_driven.uplift_words(q)}{formatting.cm(UPLIFT_SPARE_CM + TANK_DROP_CM)} are kept for"
                " evaporation."
            ),
            fault="Outlet in the air: the lift falls off sharply." if under < 2 else None,
        ),
        Step(
            id="sponge-rinse",
            title="Pull it apart and rinse the foam",
            detail="In clean dechlorinated water. Keep the lift tube: without it the flow and the filtering fall.",
        ),
        pump,
        valve,
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
            caution=WASH,
        ),
        start,
        Step(
            id="sponge-spare",
            title="Put in a spare sponge to seed",
            detail="Note the date. In a month it can start another tank.",
        ),
    ]


def _faults(g: ResolvedLayout) -> list[PlacedIssue]:
    return air_driven.air_faults(g) + air_driven.uplift_fault(g)


def _fittings(g: ResolvedLayout) -> list[Purchase]:
    return [*air_driven.air_fittings(g), air_driven.uplift_cut(g)]


KIND = FilterKind(
    name="sponge",
    title="Sponge",
    order=0,
    prefix="sponge",
    service_days=30,
    rise="none",
    loop_words=air_driven.rising_words,
    hosed=False,
    own_k=3.0,
    stemmed=False,
    media_in_path=True,
    outlet="bubbles",
    needs_air=True,
    closed=False,
    in_tank=True,
    pump_in_water="no",
    may_pair=True,
    on_rim=False,
    fill_most=1.0,
    judged=Judgements(easy_clean=0.7, clear_water=0.35, hidden=0.1, flood_safety=1.0, expandable=0.8),
    power_cut=air_driven.POWER_CUT,
    proofs=air_driven.PROOFS,
    causes=air_driven.CAUSES,
    limits=stands_under,
    steps=_steps,
    after={
        "sponge-line": ("sponge-air-pump",),
        "sponge-start": ("sponge-check-valve", "sponge-air-pump", "sponge-line", "sponge-place"),
    },
    inspections=air_driven.valve_inspection("sponge"),
    marks=air_driven.air_marks,
    runs=air_driven.air_runs,
    faults=_faults,
    fittings=_fittings,
    mishaps=air_driven.air_mishaps,
    care=Care(
        title="Squeeze the sponge",
        share=0.5,
        minutes=10,
        steps=care_steps(
            "sponge",
            (
                "bucket",
                "A bucket of old tank water",
                (
                    "Draw it from the tank before anything is lifted: never tap water on the film, for its chlorine"
                    " kills it."
                ),
                WASH,
            ),
            (
                "under",
                "A bag or tub under it",
                "Hold it under the sponge before it is lifted, or a brown cloud stays behind.",
            ),
            ("out", "Lift it out in the bag", "Slowly, tube and all; the air may stay on."),
            (
                "squeeze",
                "Squeeze it in the bucket",
                "Until it runs fair, not white; of two in one tank only one at a time.",
            ),
            (
                "back",
                "Put it back",
                "Squeeze it once under water so that it sinks; the tube pushed home, never left out.",
            ),
            (
                "seen",
                "Bubbles seen",
                "Bubbles rise as before, from the uplift and nowhere else. Write it down; time the flow if you can.",
            ),
        ),
        worn=(
            Worn("foam", 1095, "it stays flat when squeezed, or crumbles"),
            Worn("air stone", 180, "few or no bubbles with the valve full open"),
            Worn("check valve", 730, "blow through it both ways: one must be shut"),
        ),
    ),
    messy=("clogs within days under {who}", "use it as a second filter beside a hang-on or a canister"),
)
