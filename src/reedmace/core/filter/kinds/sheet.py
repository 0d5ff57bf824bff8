"""The sheet: a wall of foam across the tank with a lift behind it."""

from reedmace.core.contract import Working
from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.kind_parts import air_driven
from reedmace.core.filter.kind_parts.about import KindAbout
from reedmace.core.filter.kind_parts.cleaning import Care, Worn, care_steps
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.kind_parts.steps import UNPLUG, WASH, Step, StepFacts
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kind_parts.typical import Typical
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting

SHALLOWEST_CM = 12.0


def _limits(t: FilterTable, mine: Bools, site: Site) -> list[Limit]:
    longest = max(site.width_cm, site.length_cm)
    return [
        Limit(
            mine & ((t.width_cm > longest) | (site.water_depth_cm < SHALLOWEST_CM)),
            lambda i: f"is {formatting.cm(t.width_cm[i], 'g')} wide and spans no side of this tank",
            lambda _: "cut it down, or choose a smaller one",
        )
    ]


def _steps(q: StepFacts, w: Working) -> list[Step]:
    gap = w.line("behind the foam", "about 6 cm", "room for the lift", 6, "cm", "practice")
    return [
        Step(
            id="sheet-cut",
            title="Cut the foam to the tank",
            detail=(
                f"A little wider than the inside, so that it clamps itself; {formatting.cm(gap)} stay free behind it"
                " for the lift."
            ),
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
            detail=(
                f"The tube goes through a hole near the top. {air_driven.uplift_words(q)}the outlet stays under the"
                " surface after evaporation."
            ),
        ),
        *air_driven.air_steps("sheet"),
    ]


KIND = FilterKind(
    name="sheet",
    title="Sheet",
    about=KindAbout(
        called=("mat filter", "matten filter", "foam wall", "wall filter", "sheet filter"),
        how=(
            "A wall of foam stands across the tank or a corner. Behind it a lift or a small pump carries "
            "water back to the front, so that all of it passes the foam slowly."
        ),
        good=(
            "a very large face: cleaned once in a year or more",
            "safe for fry and shrimp",
            "quiet",
            "cheap for what it does",
        ),
        poor=(
            "takes room in the tank and stands in view",
            "strains fine dirt only once it has ripened",
            "a heater behind it must stay covered with water",
        ),
        picked_for="Breeding tanks, shrimp, planted tanks, and whoever wants to clean seldom.",
        argued="Some dislike the look, others the room it takes. Nobody argues about how it filters.",
        cleaning=(
            "Years may pass. When the water behind it stands lower than before it, lift it out and rinse it "
            "in tank water, half at a time where it is the only film."
        ),
        costs="A sheet of foam and an air lift; often cut at home. The foam lasts for years.",
        in_box=("foam sheet", "side rails or grooves", "lift tube"),
        besides=("air pump and line, or a small pump", "check valve for air"),
    ),
    order=1,
    prefix="sheet",
    service_days=365,
    rise="none",
    loop_words=air_driven.rising_words,
    hosed=False,
    own_k=3.0,
    stemmed=False,
    media_in_path=True,
    outlet="bubbles",
    needs_air=False,
    closed=False,
    in_tank=True,
    pump_in_water="no",
    may_pair=True,
    on_rim=False,
    fill_most=1.0,
    typical=Typical(
        smallest_lph=100,
        largest_lph=900,
        figures={
            "watts": (3, 0, 0.2),
            "media_l": (20, 1.57, 0.35),
            "width_cm": (73, 1.02, 0.08),
            "depth_cm": (7, 0, 0.08),
            "height_cm": (51, 0.5, 0.08),
            "noise": (2, 0, 0.15),
            "price": (63, 0.97, 0.3),
            "air_l_min": (2.5, 1.31, 0.1),
            "tube_bore_mm": (27, 0.49, 0.08),
            "face_cm2": (4100, 1.57, 0.08),
            "foam_depth_cm": (5, -0, 0.08),
            "tank_up_to_l": (420, 1.69, 0.25),
        },
        counted=True,
    ),
    judged=Judgements(easy_clean=0.85, clear_water=0.5, hidden=0.25, flood_safety=1.0, expandable=0.5, young_safe=1.0),
    power_cut=air_driven.POWER_CUT,
    proofs=air_driven.PROOFS,
    causes=air_driven.CAUSES,
    limits=_limits,
    steps=_steps,
    after={
        "sheet-rinse": ("sheet-cut",),
        "sheet-start": ("sheet-check-valve", "sheet-air-pump", "sheet-rinse", "sheet-lift"),
    },
    inspections=air_driven.valve_inspection("sheet"),
    marks=air_driven.air_marks,
    runs=air_driven.air_runs,
    faults=air_driven.air_faults,
    fittings=air_driven.air_fittings,
    mishaps=air_driven.air_mishaps,
    care=Care(
        title="Rinse the sheet",
        share=0.5,
        minutes=25,
        steps=care_steps(
            "sheet",
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
                "stop",
                "Stop the lift",
                "So that nothing is drawn round the foam while it is out; a pump is unplugged.",
                UNPLUG,
            ),
            ("vacuum", "Draw off what lies in front and behind", "With the hose, before the foam is moved."),
            (
                "squeeze",
                "Squeeze half of it in place or in the bucket",
                "From one end; the other half another time. A sheet that still flows is left alone for years.",
            ),
            ("back", "Stand it back from glass to glass", "Down to the base: a gap lets water past."),
            (
                "seen",
                "Bubbles seen",
                "Bubbles rise as before, from the uplift and nowhere else. Write it down; time the flow if you can.",
            ),
        ),
        worn=(Worn("foam", 2555, "it sags away from the glass"), Worn("air stone", 180, "few or no bubbles")),
    ),
    messy=("clogs within days under {who}", "use it as a second filter beside a hang-on or a canister"),
    messy_only_air=True,
)
