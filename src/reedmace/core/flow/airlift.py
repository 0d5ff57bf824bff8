"""Air lift: water moved by air let into a tube, as in a sponge filter."""

from typing import Annotated

from reedmace.core.contract import Answer, Celsius, Lph, Question, Working, computation, number
from reedmace.core.flow.airlift_kernel import airlift, bubble_speed
from reedmace.core.flow.materials import dirt_resistance, media_coefficients, viscosity_m2_s
from reedmace.core.quantity import formatting, m3s_to_lph

MINOR_K = 2.5
"""Loss coefficient of the entrance from the foam's core and the exit (memory)."""


UPLIFT_SPARE_CM = 1.0
"""Depth an uplift's outlet keeps under water after evaporation (common practice)."""


def uplift_cut_cm(water_cm: float, evaporation_cm: float) -> float:
    """Longest uplift whose outlet stays under water after evaporation, cm.

    water_cm: depth over its foot; evaporation_cm: fall of the level between top-ups, cm. Source: common practice.

    >>> uplift_cut_cm(30.0, 2.0)
    27.0
    """
    return max(water_cm - evaporation_cm - UPLIFT_SPARE_CM, 0.0)


class AirliftQuestion(Question):
    """One air lift with its foam."""

    air_l_min: Annotated[float, number("L/min", 0, 60)]
    tube_bore_mm: Annotated[float, number("mm", 6, 110)]
    submerged_cm: Annotated[float, number("cm", 0, 200, "Air inlet below the water line")]
    outlet_above_water_cm: Annotated[float, number("cm", 0, 100)] = 0
    evaporation_cm: Annotated[float, number("cm", 0, 30, "How far the water may fall between top-ups")] = 2
    foam_face_cm2: Annotated[float, number("cm²", 10, 50000)] = 300
    foam_depth_cm: Annotated[float, number("cm", 0.5, 60)] = 3
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] = 1
    days_since_cleaning: Annotated[float, number("days", 0, 1000)] = 30
    temperature_c: Celsius = 25


class AirliftAnswer(Answer):
    """Clean and dirty flow."""

    delivered_lph: Lph
    dirty_lph: Lph
    gas_share: Annotated[float, number("share", 0, 1)]
    uplift_cut_cm: Annotated[
        float, number("cm", 0, 200, "Tube length from the air inlet that stays under after evaporation")
    ]
    evaporated_lph: Annotated[
        float, number("L/h", 0, 1e7, "Clean, with the water fallen that far and the tube as it is")
    ]


@computation("airlift-flow", "The water an air lift moves")
def airlift_flow(question: AirliftQuestion) -> AirliftAnswer:
    """Water flow of an air lift.

    question: air in L/min at the tube, sizes in mm and cm.
    Source: Nicklin 1963 with the bubble speed of Reinemann, Parlange and Timmons 1990.
    """
    q, w = question, Working()
    nu = viscosity_m2_s(q.temperature_c)
    bore, area = q.tube_bore_mm / 1000, 3.141592653589793 / 4 * (q.tube_bore_mm / 1000) ** 2
    c1, _ = media_coefficients("foam-20", q.foam_face_cm2 / 1e4, q.foam_depth_cm / 100, nu)
    dirt = dirt_resistance(q.feed_g_day, q.days_since_cleaning, q.foam_face_cm2 / 1e4)
    air = q.air_l_min / 60000
    speed = "0.352 √(gD) (1 − 3.18Σ − 14.77Σ²)"
    rise = w.line("vT", speed, f"D {q.tube_bore_mm:g} mm", float(bubble_speed(bore)), "m/s", "reinemann1990")

    def lifted(resistance: float, evaporated_cm: float = 0.0) -> float:
        submerged = max(q.submerged_cm - evaporated_cm, 0.0) / 100
        return float(
            airlift(air, bore, submerged, (q.outlet_above_water_cm + evaporated_cm) / 100, resistance, MINOR_K, nu)
        )

    clean, dirty, fallen = lifted(c1), lifted(c1 + dirt), lifted(c1, q.evaporation_cm)
    jg, jl = air / area, clean / area
    gas = w.line(
        "ε",
        "jg / (1.2 (jg + jl) + vT)",
        f"{jg:.3f} / (1.2 × ({jg:.3f} + {jl:.3f}) + {rise:.3f})",
        jg / (1.2 * (jg + jl) + rise) if jg + rise > 0 else 0.0,
        "share",
        "nicklin1963",
    )
    balance, worn = "submerged depth = column × (1 − ε) + losses", f"{q.days_since_cleaning:g} days"
    w.line("Q", balance, f"{q.submerged_cm:g} cm", m3s_to_lph(clean), "L/h", "nicklin1963")
    w.line("Q dirty", "the same with the dirt's resistance", worn, m3s_to_lph(dirty), "L/h", "dirtprior")
    cut = w.sum(
        "cut",
        "max(submerged − evaporation − 1, 0)",
        {"submerged": q.submerged_cm, "evaporation": q.evaporation_cm, "1": UPLIFT_SPARE_CM},
        "cm",
        "practice",
    )
    verdict = (
        f"{q.air_l_min:g} L/min of air lifts about {formatting.lph(m3s_to_lph(clean))} through clean foam."
        if clean > 0
        else "The air cannot lift water over the outlet: put the outlet lower or the air inlet deeper."
    )
    return AirliftAnswer(
        verdict=verdict,
        working=w.lines,
        delivered_lph=m3s_to_lph(clean),
        dirty_lph=m3s_to_lph(dirty),
        gas_share=gas,
        uplift_cut_cm=cut,
        evaporated_lph=m3s_to_lph(fallen),
    )
