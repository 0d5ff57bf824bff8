"""CO2 of a planted tank from KH and pH, what the surface takes out of it, and what the night does."""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.carbonate import CO2_MG_PER_MMOL, IN_AIR_MG_L, Carbonate
from reedmace.core.contract import PH, Answer, Celsius, NetLitres, Question, Working, computation, number

UPPER_MARK_MG_L = 30.0
"""CO2 up to which planted tanks with animals are usually driven (common practice)."""
GOOD_FROM_MG_L = 15.0
"""CO2 from which plants that ask for it grow well (common practice)."""
OF_OXYGEN = 0.9
"""Transfer of CO2 through a surface relative to oxygen (ratio of diffusivities)."""
Mark = Literal["little", "good", "over"]


class DissolvedCo2Question(Question):
    """A test of KH and pH, and how the surface is moved."""

    kh_dkh: Annotated[float, number("dKH", 0, 40)]
    ph: PH
    temperature_c: Celsius = 25
    net_l: NetLitres = 100
    surface_per_hour: Annotated[
        float, number("1/h", 0, 20, "Transfer of oxygen through the surface, as `oxygen-balance` finds it")
    ] = 0.2
    on_h: Annotated[float, number("h", 0, 24, "Of CO2 a day")] = 9


class DissolvedCo2Answer(Answer):
    """CO2 now, what the surface takes in a day, and CO2 in the morning once it is off at night."""

    co2_mg_l: Annotated[float, number("mg/L", 0, 1e5)]
    mark: Mark
    lost_g_day: Annotated[float, number("g/day", 0, 1e7, "Through the surface, in the hours it is on")]
    morning_mg_l: Annotated[float, number("mg/L", 0, 1e5, "After the hours it is off")]
    morning_ph: Annotated[float, number("pH", 0, 14)]
    caution: str = Field(default="Raise it by a bubble at a time over days, with someone there to watch the animals.")


@computation("dissolved-co2", "How much CO2 the water holds, and what the surface takes out of it")
def dissolved_co2(question: DissolvedCo2Question) -> DissolvedCo2Answer:
    """CO2 from KH and pH, its loss through the surface, and the morning after.

    question: dKH, pH, °C, L, 1/h, h. Only where KH is bicarbonate: other acids and phosphate make the figure too high.
    Source: carbonate equilibrium (3.5 KH 10^(7 − pH) near 25 °C; the usual rule says 3.0); 30 mg/L common practice;
    exchange as oxygen's, by the ratio of diffusivities.
    """
    q, w = question, Working()
    water = Carbonate.of(q.ph, q.kh_dkh, q.temperature_c)
    now = w.line(
        "CO2",
        "KH · 10^(pK1 − pH) · 44.01",
        f"{q.kh_dkh:g} dKH, pH {q.ph:g}",
        water.co2_mmol() * CO2_MG_PER_MMOL,
        "mg/L",
        "carbonate",
    )
    out = w.sum("k", "k oxygen × 0.9", {"k oxygen": q.surface_per_hour, "0.9": OF_OXYGEN}, "1/h", "memory")
    above = max(now - IN_AIR_MG_L, 0.0)
    lost = w.sum(
        "lost",
        "k × above × hours × litres / 1000",
        {"k": out, "above": above, "hours": q.on_h, "litres": q.net_l},
        "g/day",
        "memory",
    )
    morning = IN_AIR_MG_L + above * math.exp(-out * (24 - q.on_h)) if now > IN_AIR_MG_L else now
    morning_ph = q.ph + math.log10(max(now, 1e-3) / max(morning, 1e-3))
    mark: Mark = "over" if now > UPPER_MARK_MG_L else "good" if now >= GOOD_FROM_MG_L else "little"
    return DissolvedCo2Answer(
        verdict=_VERDICTS[mark].format(now=now)
        + (f" The surface takes {lost:.2g} g a day while it is on." if lost >= 0.01 else ""),
        working=w.lines,
        co2_mg_l=now,
        mark=mark,
        lost_g_day=lost,
        morning_mg_l=morning,
        morning_ph=min(morning_ph, 14.0),
    )


_VERDICTS: dict[Mark, str] = {
    "over": (
        "About {now:.0f} mg/L of CO2, over the usual upper mark of 30: give less, and more air at once where fish hang"
        " at the surface."
    ),
    "good": "About {now:.0f} mg/L of CO2: plenty for plants, under the usual upper mark of 30.",
    "little": "About {now:.2g} mg/L of CO2: what the air and the animals give.",
}
