"""The sponge: foam round a lift tube, driven by air."""

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts import air_driven
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.fitting import Purchase
from reedmace.core.filter.kind_parts.in_tank import stands_under
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.placement import PlacedIssue, ResolvedLayout
from reedmace.core.filter.kind_parts.steps import WASH, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
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
    about=KindAbout(
        called=("sponge filter", "foam filter", "air sponge", "sponge"),
        how=(
            "Air let go low inside the core rises up a tube and takes water with it. What leaves through the "
            "tube must come in through the foam, which strains it and holds the filter bacteria."
        ),
        good=(
            "the cheapest, and one air pump runs many",
            "no intake that could take fry or shrimp; they graze on it",
            "starts again by itself; its bacteria live through a power cut in the tank's own water",
            "easy to seed, and to carry to the next tank",
            "bubbles bring oxygen",
        ),
        poor=(
            "bubbles and pump can be heard",
            "stands in view and takes room",
            "holds no carbon or other chemical media",
            "drips brown when it is lifted",
            "clogs soon under large messy animals",
        ),
        picked_for=(
            "Shrimp, fry, small and slow fish, breeding rooms, hospital tanks, and tanks whose owner is often away."
        ),
        argued=(
            "Some call it too weak, since it turns the water slowly. Its friends point to the film in the "
            "foam, which is far more than a lightly stocked tank needs. Both are right on different tanks: it"
            " is judged here by film, by straining and by movement."
        ),
        cleaning=(
            "Squeeze it in a bucket of old tank water, about once a month, two weeks with fine foam. A bag "
            "under it before it is lifted keeps the carpet clean. Of a pair, one at a time."
        ),
        costs="The least of all kinds to buy. Its foam lasts for years; air stone and check valve are replaced.",
        in_box=("foam on a core", "lift tube", "sometimes an air stone"),
        besides=("air pump", "air line", "check valve", "an air valve where one pump drives several"),
    ),
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
    typical=Typical(
        smallest_lph=60,
        largest_lph=600,
        figures={
            "watts": (4.7, 0.62, 0.2),
            "media_l": (4.5, 1.6, 0.35),
            "width_cm": (23, 0.52, 0.08),
            "depth_cm": (19, 0.54, 0.08),
            "height_cm": (36, 0.6, 0.08),
            "noise": (3.9, 0.42, 0.15),
            "price": (26, 0.71, 0.3),
            "air_l_min": (2.5, 1.2, 0.1),
            "tube_bore_mm": (27, 0.52, 0.08),
            "face_cm2": (2000, 1.3, 0.08),
            "foam_depth_cm": (4.1, 0.33, 0.08),
            "tank_up_to_l": (350, 1.32, 0.25),
        },
        counted=True,
    ),
    judged=Judgements(easy_clean=0.7, clear_water=0.35, hidden=0.1, flood_safety=1.0, expandable=0.8, young_safe=1.0),
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
