"""The toxic (un-ionised) share of ammonia, and published ammonia criteria."""

import math
from typing import Annotated

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.contract import PH, Answer, Celsius, Question, Share, Working, computation, number
from reedmace.core.quantity import celsius_to_kelvin


def pka_fresh(temperature_c: float) -> float:
    """pKa of ammonium in fresh water.

    temperature_c: 0 to 50 °C.
    At 25 °C: 9.246. Source: Emerson et al. 1975.

    >>> round(pka_fresh(25.0), 3)
    9.246
    """
    return 0.09018 + 2729.92 / celsius_to_kelvin(temperature_c)


def pka_sea(temperature_c: float, salinity_g_kg: float) -> float:
    """pKa of ammonium in brackish and sea water.

    temperature_c: 0 to 35 °C; salinity_g_kg: 0 to 40 g/kg.
    At 25 °C and 35 g/kg: 9.230, on the total pH scale. Checked against PyCO2SYS in tests/reference.
    Source: Clegg and Whitfield 1995, coefficients from memory.

    >>> round(pka_sea(25.0, 35.0), 3)
    9.23
    """
    t, s = celsius_to_kelvin(temperature_c), salinity_g_kg
    root_t = math.sqrt(t)
    return float(
        9.244605
        - 2729.33 * (1 / 298.15 - 1 / t)
        + (0.04203362 - 11.24742 / t) * s**0.25
        + (-13.6416 + 1.176949 * root_t - 0.02860785 * t + 545.4834 / t) * s**0.5
        + (-0.1462507 + 0.0090226468 * root_t - 0.0001471361 * t + 10.5425 / t) * s**1.5
        + (0.004669309 - 0.0001691742 * root_t - 0.5677934 / t) * s**2
        + (-2.354039e-05 + 0.009698623 / t) * s**2.5
    )


def un_ionised_share(ph: float, temperature_c: float, salinity_g_kg: float = 0.0) -> float:
    """Share of total ammonia present as NH3, 0 to 1.

    ph: 4 to 10; temperature_c: 0 to 40 °C; salinity_g_kg: 0 to 40 g/kg.
    pH 8, 25 °C, fresh: 0.0537. Source: Emerson et al. 1975; above 5 g/kg Clegg and Whitfield 1995.

    >>> round(un_ionised_share(8.0, 25.0, 0.0), 5)
    0.05366
    """
    pka = pka_fresh(temperature_c) if is_fresh(salinity_g_kg) else pka_sea(temperature_c, salinity_g_kg)
    return float(1 / (1 + 10 ** (pka - ph)))


CRITERION_PH, CRITERION_MOST_C = (6.5, 9.0), 30.0
"""Range of pH and highest temperature of the criteria (US EPA 2013)."""


def in_criterion_range(ph: float, temperature_c: float) -> tuple[float, float]:
    """(pH, °C) moved to the nearest point in the range of the criteria. ph: any; temperature_c: °C.

    >>> in_criterion_range(6.0, 35.0)
    (6.5, 30.0)
    """
    return min(max(ph, CRITERION_PH[0]), CRITERION_PH[1]), min(temperature_c, CRITERION_MOST_C)


def chronic_criterion_mg_n_l(ph: float, temperature_c: float) -> float:
    """Thirty-day average criterion, mg TAN-N/L, fresh water.

    ph: 6.5 to 9; temperature_c: 0 to 30 °C. At pH 7, 20 °C: 1.9. Source: US EPA 2013.

    >>> round(chronic_criterion_mg_n_l(7.0, 20.0), 3)
    1.887
    """
    shape = 0.0278 / (1 + 10 ** (7.688 - ph)) + 1.1994 / (1 + 10 ** (ph - 7.688))
    return float(0.8876 * shape * 2.126 * 10 ** (0.028 * (20 - max(temperature_c, 7))))


def acute_criterion_mg_n_l(ph: float, temperature_c: float) -> float:
    """One-hour criterion with trout absent, mg TAN-N/L, fresh water.

    ph: 6.5 to 9; temperature_c: 0 to 30 °C. At pH 7, 20 °C: 17. Source: US EPA 2013.

    >>> round(acute_criterion_mg_n_l(7.0, 20.0), 2)
    16.76
    """
    shape = 0.0114 / (1 + 10 ** (7.204 - ph)) + 1.6181 / (1 + 10 ** (ph - 7.204))
    return float(0.7249 * shape * min(51.93, 23.12 * 10 ** (0.036 * (20 - temperature_c))))


class UnIonisedQuestion(Question):
    """One reading of total ammonia with its pH and temperature."""

    tan_mg_n_l: Annotated[float, number("mg N/L", 0, 1000, "Total ammonia as nitrogen")]
    ph: PH
    temperature_c: Celsius
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0


class UnIonisedAnswer(Answer):
    """Share and concentration of NH3, and the criteria (fresh water only; null when salt)."""

    un_ionised_share: Share
    nh3_mg_n_l: Annotated[float, number("mg N/L", 0, 1000)]
    pka: Annotated[float, number("pKa", 8, 11)]
    chronic_criterion_mg_n_l: Annotated[float, number("mg N/L", 0, 100)] | None
    acute_criterion_mg_n_l: Annotated[float, number("mg N/L", 0, 100)] | None


@computation("un-ionised-ammonia", "How much of the ammonia is poison")
def un_ionised_ammonia(question: UnIonisedQuestion) -> UnIonisedAnswer:
    """Un-ionised ammonia of a reading, with the published criteria.

    question: total ammonia in mg N/L, pH, °C, g/kg.
    Source: Emerson et al. 1975; Clegg and Whitfield 1995 above 5 g/kg; US EPA 2013.
    """
    q, w = question, Working()
    fresh = is_fresh(q.salinity_g_kg)
    kelvin = celsius_to_kelvin(q.temperature_c)
    pka = pka_fresh(q.temperature_c) if fresh else pka_sea(q.temperature_c, q.salinity_g_kg)
    w.line(
        "pKa",
        "0.09018 + 2729.92 / T" if fresh else "polynomial in T and S",
        f"0.09018 + 2729.92 / {kelvin:.2f}" if fresh else f"T {kelvin:.2f} K, S {q.salinity_g_kg:g} g/kg",
        pka,
        "",
        "emerson1975" if fresh else "clegg1995",
    )
    share = w.sum(
        "f", "1 / (1 + 10^(pKa − pH))", {"pKa": pka, "pH": q.ph}, "share", "emerson1975" if fresh else "clegg1995"
    )
    nh3 = w.sum("NH3", "f × TAN", {"f": share, "TAN": q.tan_mg_n_l}, "mg N/L", "arithmetic")
    chronic = acute = None
    verdict = f"{nh3:.3f} mg/L of the {q.tan_mg_n_l:g} mg N/L is the poison form ({share * 100:.1f} %)."
    if fresh:
        chronic = w.line(
            "CCC",
            "0.8876 (0.0278/(1+10^(7.688−pH)) + 1.1994/(1+10^(pH−7.688))) 2.126 × 10^(0.028(20−max(T,7)))",
            f"pH {q.ph:g}, {q.temperature_c:g} °C",
            chronic_criterion_mg_n_l(q.ph, q.temperature_c),
            "mg N/L",
            "epa2013",
        )
        acute = w.line(
            "CMC",
            "0.7249 (0.0114/(1+10^(7.204−pH)) + 1.6181/(1+10^(pH−7.204))) min(51.93, 23.12 × 10^(0.036(20−T)))",
            f"pH {q.ph:g}, {q.temperature_c:g} °C",
            acute_criterion_mg_n_l(q.ph, q.temperature_c),
            "mg N/L",
            "epa2013",
        )
        if q.tan_mg_n_l > acute:
            verdict += f" That is above the one-hour criterion of {acute:.1f}: harmful to fish now."
        elif q.tan_mg_n_l > chronic:
            verdict += f" That is above the 30-day criterion of {chronic:.2g}: harmful if it lasts."
        else:
            verdict += (
                f" The 30-day criterion here is {chronic:.2g}, so total ammonia is within it; keepers still aim for"
                " none."
            )
    return UnIonisedAnswer(
        verdict=verdict,
        working=w.lines,
        un_ionised_share=share,
        nh3_mg_n_l=nh3,
        pka=pka,
        chronic_criterion_mg_n_l=chronic,
        acute_criterion_mg_n_l=acute,
    )
