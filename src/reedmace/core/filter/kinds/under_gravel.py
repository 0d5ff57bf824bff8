"""The under-gravel plate: water is drawn down through the gravel and up the risers."""

from reedmace.core.contract import Working
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.kind_parts import air_driven
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.kind_parts.steps import UNPLUG, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting


def _limits(t: FilterTable, mine: Bools, site: Site) -> list[Limit]:
    return [
        Limit(
            mine & ((t.width_cm > site.length_cm) | (t.depth_cm > site.width_cm)),
            lambda i: (
                f"covers {formatting.cm.bare(t.width_cm[i], 'g')} × {formatting.cm(t.depth_cm[i], 'g')}, more than the"
                " floor of this tank"
            ),
            lambda _: "choose a smaller plate",
        )
    ]


def _steps(q: StepFacts, w: Working) -> list[Step]:
    gravel = w.line("gravel", "over the plate", "6", 6, "cm", "practice")
    return [
        Step(
            id="gravel-plate", title="Plate before gravel", detail="On the bare base, flat, risers at the back corners."
        ),
        Step(
            id="gravel-cover",
            title="Cover it",
            detail=f"{formatting.cm(gravel)} of rinsed gravel of 3 to 5 mm; finer falls through.",
            caution="A bucket of wet gravel is heavy: lower it in, never drop it on glass.",
        ),
        Step(
            id="gravel-risers",
            title="Cut the risers",
            detail=f"{air_driven.uplift_words(q)}all outlets stay under the surface after evaporation.",
            fault="An outlet in the air: the lift falls off sharply.",
        ),
        *air_driven.air_steps("gravel"),
        Step(
            id="gravel-habit",
            title="Mind the dirt",
            detail="Vacuum a quarter of the gravel at each change; what gathers under the plate is out of reach.",
        ),
    ]


def _caveats(_: Filter, __: Site) -> list[str]:
    return ["Some keepers find it carefree, others a trap: dirt gathers under the plate."]


KIND = FilterKind(
    name="under-gravel",
    title="Under-gravel",
    about=KindAbout(
        called=("undergravel filter", "under-gravel filter", "under gravel filter", "ug filter", "gravel filter"),
        how=(
            "A plate lies under the gravel. Air or a small pump draws water down through the bed and up the "
            "risers, so the bed itself is the filter."
        ),
        good=("nothing in view but the risers", "cheap", "safe for small animals"),
        poor=(
            "dirt gathers under the plate, where it cannot be reached",
            "clogs, and then parts of the bed go airless",
            "not for plants with deep roots, nor for fish that dig",
        ),
        picked_for="Old hands with light stock who vacuum the bed well.",
        argued="Carefree for years, say a few. Most advise beginners against it, and nobody puts goldfish on it.",
        cleaning=(
            "Vacuum a third of the gravel at each change of water. To clean under the plate the tank is emptied."
        ),
        costs="Two to three times a sponge, and the gravel.",
        in_box=("plates", "risers", "sometimes air stones"),
        besides=("gravel of 2 to 4 mm, 6 cm deep", "air pump, line and check valve, or a small pump"),
    ),
    order=7,
    prefix="gravel",
    service_days=90,
    rise="none",
    loop_words=air_driven.rising_words,
    hosed=False,
    own_k=3.0,
    stemmed=False,
    media_in_path=True,
    outlet="bubbles",
    needs_air=False,
    closed=False,
    in_tank=False,
    pump_in_water="no",
    may_pair=False,
    on_rim=False,
    fill_most=1.0,
    typical=Typical(
        smallest_lph=200,
        largest_lph=1200,
        figures={
            "watts": (3, 0, 0.2),
            "media_l": (8.5, 0, 0.35),
            "width_cm": (71, 0, 0.08),
            "depth_cm": (32, 0, 0.08),
            "height_cm": (34, 0, 0.08),
            "noise": (3, 0, 0.15),
            "price": (20, 0, 0.3),
            "air_l_min": (1.6, 0, 0.1),
            "tube_bore_mm": (23, 0, 0.08),
            "face_cm2": (2200, 0, 0.08),
            "foam_depth_cm": (4, 0, 0.08),
            "tank_up_to_l": (120, 0, 0.25),
        },
    ),
    judged=Judgements(easy_clean=0.1, clear_water=0.25, hidden=0.7, flood_safety=0.95, expandable=0.2, young_safe=0.9),
    power_cut=air_driven.POWER_CUT,
    proofs=air_driven.PROOFS,
    causes=air_driven.CAUSES,
    limits=_limits,
    steps=_steps,
    after={
        "gravel-cover": ("gravel-plate",),
        "gravel-start": ("gravel-check-valve", "gravel-air-pump", "gravel-cover", "gravel-risers"),
    },
    inspections=air_driven.valve_inspection("gravel"),
    marks=air_driven.air_marks,
    runs=air_driven.air_runs,
    faults=air_driven.air_faults,
    fittings=air_driven.air_fittings,
    mishaps=air_driven.air_mishaps,
    care=Care(
        title="Vacuum the gravel",
        share=0.25,
        minutes=20,
        steps=care_steps(
            "undergravel",
            (
                "hose",
                "Hose and bucket",
                "Started with its bulb or by dipping.",
                "Never start a siphon by mouth. Wash hands before and after.",
            ),
            (
                "quarter",
                "A quarter of the bed",
                (
                    "Deep into the gravel, until what comes up runs fair; another quarter next time, or the film goes"
                    " with the dirt."
                ),
            ),
            (
                "risers",
                "Look down the risers",
                "Clear of gravel, their stones bubbling; a pump on a riser is unplugged first.",
                UNPLUG,
            ),
            ("fill", "Fill up with treated water", "Of the tank's own warmth."),
        ),
        worn=(Worn("air stones", 180, "few or no bubbles from one riser"),),
    ),
    messy=("clogs under {who} and cannot be cleaned without stripping the tank", "keep it for small, light stock"),
    caveats=_caveats,
)
