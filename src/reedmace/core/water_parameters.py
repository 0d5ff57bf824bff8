"""What is measured of water: one record a parameter, and the figures of a test made of them.

A new parameter is a record here, its field in `WaterFigures` and its place in `WATER_PARAMETERS`; the jotted line, both
forms of CSV, the logbook, the forms on screen and the charts read them from here.
"""

from dataclasses import dataclass
from typing import Annotated, Any, Literal

from reedmace.core.chemistry.carbonate import MMOL_PER_DKH
from reedmace.core.contract import Part, number
from reedmace.core.quantity.units import CACO3_PER_DKH, NITROGEN_SHARE

Tone = Literal["seed", "water", "reed"]


@dataclass(frozen=True)
class ColumnUnit:
    """Another unit that a table's column may be in: how its name is recognised, and how it becomes the field's own.

    A figure is divided by `per` after `offset` was taken from it. `unit`, `words`: of a choice, and on screen.
    """

    unit: str
    words: str
    per: float = 1.0
    offset: float = 0.0
    header: str = ""


@dataclass(frozen=True)
class WaterParameter:
    """One parameter: where it is kept, how it is named and typed, its range, and how it is drawn.

    field: of a reading, with its unit; word, label: in a sentence and on a form; letters: its names in a jotted line,
    the first as the forms write it; unit: of the field; low, high: of what is typed; header: how a table's column
    is recognised; units: of such a column, the field's own first; ion: read against a colour scale, in ppm of that ion;
    tone: of its line; floor: least height of its chart's axis, None for one that does not begin at zero.
    """

    field: str
    word: str
    label: str
    letters: tuple[str, ...]
    unit: str
    low: float
    high: float
    header: str
    tone: Tone
    units: tuple[ColumnUnit, ...] = ()
    ion: Literal["NH4", "NO2", "NO3"] | None = None
    floor: float | None = 1.0
    about: str = ""

    @property
    def key(self) -> str:
        """Its name without the unit: "ammonia", "kh"."""
        return self.field.split("_")[0]

    def number(self) -> Any:
        """A pydantic field in its unit and range."""
        return number(self.unit, self.low, self.high, self.about)


def _ppm(ion: Literal["NH4", "NO2", "NO3"]) -> tuple[ColumnUnit, ...]:
    return (
        ColumnUnit("ppm", "ppm of the ion"),
        ColumnUnit("ppm-N", "ppm as N", NITROGEN_SHARE[ion], header=r"-n\b|as n\b|\(n\)"),
    )


_HARDNESS = (
    ColumnUnit("dKH", "dKH"),
    ColumnUnit("ppm-CaCO3", "ppm CaCO3", CACO3_PER_DKH, header="ppm|mg|caco3"),
    ColumnUnit("meq/L", "meq/L", MMOL_PER_DKH, header=r"\bm(eq|mol)\b"),
)

AMMONIA = WaterParameter(
    "ammonia_ppm", "ammonia", "Ammonia", ("a", "am", "ammonia", "nh3", "nh4", "tan"), "ppm", 0, 100,
    r"ammoni|nh ?[34]|\btan\b", "seed", _ppm("NH4"), "NH4",
)  # fmt: skip
NITRITE = WaterParameter(
    "nitrite_ppm", "nitrite", "Nitrite", ("n", "no2", "nitrite"), "ppm", 0, 100, r"nitrite|no ?2", "water",
    _ppm("NO2"), "NO2",
)  # fmt: skip
NITRATE = WaterParameter(
    "nitrate_ppm", "nitrate", "Nitrate", ("no3", "nitrate"), "ppm", 0, 1000, r"nitrate|no ?3", "water",
    _ppm("NO3"), "NO3",
)  # fmt: skip
PH = WaterParameter("ph", "pH", "pH", ("ph",), "pH", 4, 10, r"\bph\b", "seed", floor=None)
KH = WaterParameter(
    "kh_dkh", "KH", "KH", ("kh",), "dKH", 0, 40, r"\bkh\b|carbonate|alkal", "reed", _HARDNESS
)  # fmt: skip
GH = WaterParameter(
    "gh_dgh", "GH", "GH", ("gh",), "dGH", 0, 60, r"\bgh\b|general|total hardness", "reed",
    (ColumnUnit("dGH", "dGH"), *_HARDNESS[1:]),
)  # fmt: skip
TEMPERATURE = WaterParameter(
    "temperature_c", "", "Temperature", ("t", "temp"), "°C", 0.5, 40, r"temp|°\s?[cf]", "seed",
    (ColumnUnit("C", "°C"), ColumnUnit("F", "°F", 1.8, 32.0, r"°?f\b|_f\b|fahren")), floor=None,
)  # fmt: skip
PHOSPHATE = WaterParameter(
    "phosphate_ppm", "phosphate", "Phosphate", ("po4", "phosphate"), "ppm", 0, 100, "phosph|po ?4", "reed",
    about="As PO4",
)  # fmt: skip
SALINITY = WaterParameter(
    "salinity_g_kg", "salinity", "Salinity", ("sal", "s", "salinity"), "g/kg", 0, 45, "salin|psu|g/kg", "water",
    floor=None,
)  # fmt: skip
OXYGEN = WaterParameter(
    "oxygen_mg_l", "oxygen", "Oxygen", ("o2", "do", "oxygen"), "mg/L", 0, 30, r"oxygen|\bo2\b|\bdo\b", "water",
    about="Dissolved",
)  # fmt: skip

WATER_PARAMETERS = (AMMONIA, NITRITE, NITRATE, PH, KH, TEMPERATURE, PHOSPHATE, SALINITY, GH, OXYGEN)
"""In the order of a table's columns: new ones at the end, so that files written before stay as they were."""
BY_FIELD = {one.field: one for one in WATER_PARAMETERS}
COLOUR_READ = tuple(one for one in WATER_PARAMETERS if one.ion)
"""Read against a colour scale, so that a figure may stand between two steps or be off the last."""


class WaterFigures(Part):
    """What is measured of water in the same unit wherever it is kept; null where it was not."""

    ph: Annotated[float, PH.number()] | None = None
    kh_dkh: Annotated[float, KH.number()] | None = None
    gh_dgh: Annotated[float, GH.number()] | None = None
    temperature_c: Annotated[float, TEMPERATURE.number()] | None = None
    phosphate_ppm: Annotated[float, PHOSPHATE.number()] | None = None
    salinity_g_kg: Annotated[float, SALINITY.number()] | None = None
    oxygen_mg_l: Annotated[float, OXYGEN.number()] | None = None

    def shared_figures(self) -> dict[str, float | None]:
        """The figures that every form of a test has, by field."""
        return {name: getattr(self, name) for name in WaterFigures.model_fields}


Ppm = Annotated[float, number("ppm", 0, 2000, "As the kit reads it, on its own basis")]


class KitFigures(WaterFigures):
    """The same with the nitrogen tests as a kit reads them."""

    ammonia_ppm: Ppm | None = None
    nitrite_ppm: Ppm | None = None
    nitrate_ppm: Ppm | None = None
