"""The box: a plastic box packed with floss, lifted by air."""

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
from reedmace.core.quantity import formatting


def _steps(q: StepFacts, w: Working) -> list[Step]:
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
            detail=(
                f"{formatting.litres(q.media_l, 'g')}: ceramic or gravel below, floss on top. When the floss is thrown"
                " out, the film below stays."
            ),
        ),
        Step(
            id="box-place",
            title="Put it in a rear corner",
            detail="Let it fill and sink. It slides: wedge it.",
            caution=WASH,
        ),
        *air_driven.air_steps("box"),
    ]


def _faults(g: ResolvedLayout) -> list[PlacedIssue]:
    return air_driven.air_faults(g) + air_driven.uplift_fault(g)


def _fittings(g: ResolvedLayout) -> list[Purchase]:
    return [
        *air_driven.air_fittings(g),
        air_driven.uplift_cut(g),
        Purchase("ballast stone", 1, "piece", "an air-driven box floats without it"),
    ]


KIND = FilterKind(
    name="box",
    title="Box",
    about=KindAbout(
        called=("box corner filter", "corner filter", "box filter"),
        how=(
            "A plastic box full of floss stands in the tank. Air lifts water out at the top, and more comes "
            "in through the slots and the floss."
        ),
        good=(
            "cheap",
            "floss is changed in a minute",
            "keeps its dirt inside when it is lifted",
            "can hold coral or peat",
        ),
        poor=("floats without ballast", "most of its film goes out with the floss", "little flow", "ugly"),
        picked_for="Fry, quarantine, and breeders who change floss often.",
        argued=(
            "Sponges do the same and keep their film, say many; its friends like that dirt leaves the tank "
            "with the floss."
        ),
        cleaning="Change half of the floss when it is dirty, the other half later.",
        costs="As a sponge; floss is bought again and again.",
        in_box=("box with lid", "lift tube"),
        besides=("air pump, line and check valve", "floss", "stones or rings as ballast"),
    ),
    order=6,
    prefix="box",
    service_days=21,
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
    packing=("floss",),
    typical=Typical(
        smallest_lph=60,
        largest_lph=250,
        figures={
            "watts": (2.8, 0.36, 0.2),
            "media_l": (4.9, 1.61, 0.35),
            "width_cm": (31, 0.6, 0.08),
            "depth_cm": (13, 0.14, 0.08),
            "height_cm": (28, 0.48, 0.08),
            "noise": (3, 0, 0.15),
            "price": (23, 0.86, 0.3),
            "air_l_min": (2.9, 1.27, 0.1),
            "tube_bore_mm": (26, 0.52, 0.08),
            "face_cm2": (340, 1.04, 0.08),
            "foam_depth_cm": (7.4, 0.23, 0.08),
            "tank_up_to_l": (230, 1.17, 0.25),
        },
        counted=True,
    ),
    judged=Judgements(easy_clean=0.8, clear_water=0.45, hidden=0.05, flood_safety=1.0, expandable=0.5, young_safe=0.85),
    power_cut=air_driven.POWER_CUT,
    proofs=air_driven.PROOFS,
    causes=air_driven.CAUSES,
    limits=stands_under,
    steps=_steps,
    after={
        "box-media": ("box-ballast",),
        "box-place": ("box-ballast", "box-media"),
        "box-start": ("box-check-valve", "box-air-pump", "box-place"),
    },
    inspections=air_driven.valve_inspection("box"),
    marks=air_driven.air_marks,
    runs=air_driven.air_runs,
    faults=_faults,
    fittings=_fittings,
    mishaps=air_driven.air_mishaps,
    care=Care(
        title="Change half the floss",
        share=0.5,
        minutes=10,
        steps=care_steps(
            "box",
            (
                "bucket",
                "A bucket of old tank water",
                (
                    "Draw it from the tank before anything is lifted: never tap water on the film, for its chlorine"
                    " kills it."
                ),
                WASH,
            ),
            ("out", "Lift the box out in a tub", "Slowly: it holds its dirt only while it is level."),
            ("floss", "Change half the floss", "Where it is the only film: half goes, half stays on top of the new."),
            ("ballast", "Ballast back, lid on", "An unballasted box floats."),
            (
                "seen",
                "Bubbles seen",
                "Bubbles rise as before, from the uplift and nowhere else. Write it down; time the flow if you can.",
            ),
        ),
        worn=(Worn("air stone", 180, "few or no bubbles"),),
    ),
    messy=("clogs within days under {who}", "use it as a second filter beside a hang-on or a canister"),
)
