"""Filter socks of a sump: their area, the dirt they catch, and days until they overflow."""

import math
from typing import Annotated, Literal

from reedmace.core.contract import Answer, Lph, Question, Working, computation, number, whole
from reedmace.core.flow.materials import CAKE, SOLIDS_PER_FEED

SOCK_CLOGGING = 12.0
"""How readily felt of 200 µm blocks for the same dirt, against 20 ppi foam (memory): so that one sock of 18 cm under 3
g of food a day and 2000 L/h stands full within the three to seven days in which keepers change it (common practice).
"""
SPILLS_CM = 12.0
"""Head over a sock at which it overflows its rim (memory)."""
SLIME_DAYS = 10.0
"""Days after which a sock is clogged by slime, however little dirt there is (common practice)."""
WETTED = 0.6
"""Share of its length that hangs in the water (memory)."""


class SockDaysQuestion(Question):
    """The socks side by side under the drain, the food, and the flow."""

    return_lph: Lph
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Dry food")]
    socks_count: Annotated[int, whole(1, 12)] = 1
    width_cm: Annotated[float, number("cm", 4, 40, "Across its ring")] = 18
    length_cm: Annotated[float, number("cm", 5, 120)] = 40


class SockDaysAnswer(Answer):
    """Area of cloth in the water, and days to a wash."""

    cloth_cm2: Annotated[float, number("cm²", 1, 1e6)]
    caught_g_day: Annotated[float, number("g/day", 0, 5000, "Dry dirt")]
    wash_days: Annotated[float, number("days", 0, 4000)]
    by: Literal["dirt", "slime"]


@computation("sock-days", "How often a sump's socks are washed, by cloth, food and flow")
def sock_days(question: SockDaysQuestion) -> SockDaysAnswer:
    """Days until the water stands to the rim of a sump's socks.

    question: L/h, g of food a day, sizes in cm. Source: cake filtration, its resistance from memory.
    """
    q, w = question, Working()
    each = w.sum(
        "cloth",
        "π × width × length × wetted",
        {"π": math.pi, "width": q.width_cm, "length": q.length_cm, "wetted": WETTED},
        "cm²",
        "geometry",
    )
    cloth = w.sum("A", "n × cloth / 10000", {"n": q.socks_count, "cloth": each}, "m²", "geometry")
    caught = w.sum("dirt", "food × caught", {"food": q.feed_g_day, "caught": SOLIDS_PER_FEED}, "g/day", "timmons")
    through = w.sum("Q", "flow / 3600000", {"flow": q.return_lph}, "m³/s", "arithmetic")
    rise = w.sum(
        "rise", "cake × felt × dirt / 1000 / A^2 × Q × 100",
        {"cake": CAKE, "felt": SOCK_CLOGGING, "dirt": caught, "A": cloth, "Q": through}, "cm a day", "memory",
    )  # fmt: skip
    full = SPILLS_CM / rise if rise > 1e-9 else 4000.0
    days = SLIME_DAYS
    if full < SLIME_DAYS:
        days = max(w.sum("washed", "rim / rise", {"rim": SPILLS_CM, "rise": rise}, "days", "practice"), 0.05)
    if full < 1:
        verdict = "The water runs over the rim within a day: more cloth, a coarser sock, or none."
    elif full < SLIME_DAYS:
        verdict = (
            f"Wash the {'sock' if q.socks_count == 1 else 'socks'} about every {max(math.floor(full), 1)} days: by then"
            " the water stands at the rim. Twice the cloth lasts about four times as long, until slime closes it."
        )
    else:
        verdict = (
            f"Wash the {'sock' if q.socks_count == 1 else 'socks'} every {SLIME_DAYS:g} days or so, before slime closes"
            " the cloth; their dirt would take longer."
        )
    return SockDaysAnswer(
        verdict=verdict,
        working=w.lines,
        cloth_cm2=cloth * 1e4,
        caught_g_day=caught,
        wash_days=days,
        by="dirt" if full < SLIME_DAYS else "slime",
    )
