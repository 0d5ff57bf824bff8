"""Foam skimmer of a salt tank: the label to look for, and the water, air and space it takes, by litres and load."""

import math
from typing import Annotated

from reedmace.core.contract import Answer, Litres, Lph, NetLitres, Question, Working, computation, number
from reedmace.core.quantity import formatting

LIGHT_FEED_G_DAY_100L, HEAVY_FEED_G_DAY_100L = 0.8, 3.0
"""Dry food per 100 L and day of a lightly and of a heavily stocked salt tank (memory)."""
LIGHT_SHARE, HEAVY_SHARE = 1.0, 2.0
"""Litres on the label per litre of water, for light and for heavy stock (common practice)."""
PASSES_PER_HOUR = 1.0
"""Tank volumes an hour through a skimmer (common practice)."""
CONTACT_S = 60.0
"""Contact of water with bubbles (memory); between one and two minutes is sought."""
AIR_PER_WATER = 0.7
"""Litres of air drawn per litre of water (memory)."""
COLUMN_HEIGHT_SHARE = 3.0
"""Height of a column in diameters (memory)."""
CM3_PER_LITRE = 1000.0


class SkimmerSizeQuestion(Question):
    """The water, the food, and the chamber it is to stand in."""

    net_l: NetLitres
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Dry food, of today's animals or of those planned")]
    chamber_length_cm: Annotated[float, number("cm", 2, 500, "Of the chamber it stands in")] | None = None
    chamber_width_cm: Annotated[float, number("cm", 2, 300)] | None = None
    label_l: Annotated[float, number("L", 1, 1e5, "Litres its box says it serves")] | None = None


class SkimmerSizeAnswer(Answer):
    """What to look for on a skimmer's box, and whether the chamber takes it."""

    label_l: Annotated[float, number("L", 0, 1e7, "Litres its box should say")]
    water_lph: Lph
    air_lph: Lph
    column_l: Litres
    column_cm: Annotated[float, number("cm", 0, 1000, "Diameter of its column")]
    fits: bool | None
    enough: bool | None


def label_share(feed_g_day: float, net_l: float) -> float:
    """Litres a skimmer's label should say, per litre of water.

    feed_g_day: dry food, g/day; net_l: L. Linear between light and heavy stock, so that one animal more never moves it
    by a jump. Source: common practice for the ends, the food from memory.

    >>> label_share(0.0, 300.0), label_share(100.0, 300.0)
    (1.0, 2.0)
    """
    fed = feed_g_day / net_l * 100
    span = (fed - LIGHT_FEED_G_DAY_100L) / (HEAVY_FEED_G_DAY_100L - LIGHT_FEED_G_DAY_100L)
    return LIGHT_SHARE + (HEAVY_SHARE - LIGHT_SHARE) * min(max(span, 0.0), 1.0)


def _chamber(q: SkimmerSizeQuestion, across_cm: float) -> tuple[bool | None, str]:
    """Whether the column stands in the chamber, and a sentence. q: the question; across_cm: its diameter, cm."""
    sides = [s for s in (q.chamber_length_cm, q.chamber_width_cm) if s is not None]
    if not sides:
        return None, ""
    if min(sides) < across_cm:
        return False, (
            f" Its column is about {formatting.cm(across_cm)} across, the chamber {formatting.cm(min(sides))}: it wants"
            " a wider chamber, or one that hangs on the rim."
        )
    return True, f" Its column, about {formatting.cm(across_cm)} across, stands in its chamber."


@computation("skimmer-size", "What foam skimmer a salt tank asks for, by litres and load")
def skimmer_size(question: SkimmerSizeQuestion) -> SkimmerSizeAnswer:
    """Foam skimmer for a salt tank.

    question: net L, dry food in g/day, chamber in cm. Source: common practice for the label; column and air
    from memory.
    """
    q, w = question, Working()
    share = w.line(
        "share",
        "1 to 2 litres on the label per litre, by food",
        f"{q.feed_g_day / q.net_l * 100:.2g} g a day for 100 L",
        label_share(q.feed_g_day, q.net_l),
        "L/L",
        "practice",
    )
    label = w.sum("label", "share × litres", {"share": share, "litres": q.net_l}, "L", "practice")
    water = w.sum("water", "passes × litres", {"passes": PASSES_PER_HOUR, "litres": q.net_l}, "L/h", "practice")
    air = w.sum("air", "0.7 × water × share", {"0.7": AIR_PER_WATER, "water": water, "share": share}, "L/h", "memory")
    column = w.sum("column", "water / 3600 × contact", {"water": water, "contact": CONTACT_S}, "L", "memory")
    across = w.sum(
        "across",
        "(4 × column × 1000 / π / 3)^(1/3)",
        {"column": column, "1000": CM3_PER_LITRE, "π": math.pi, "3": COLUMN_HEIGHT_SHARE},
        "cm",
        "geometry",
    )
    fits, chamber = _chamber(q, across)
    sized = (
        f"A skimmer sold for about {formatting.litres(label)}: {formatting.lph(water)} of water through it,"
        f" {formatting.lph(air)} of air."
    )
    enough = None
    if q.label_l is not None:
        enough = q.label_l >= label * 0.9
        short = f"A skimmer sold for {formatting.litres(q.label_l)} is too little here. {sized}"
        sized = f"A skimmer sold for {formatting.litres(q.label_l)} is enough here." if enough else short
    return SkimmerSizeAnswer(
        verdict=f"{sized}{chamber} Off until the first animals are in.",
        working=w.lines,
        label_l=label,
        water_lph=water,
        air_lph=air,
        column_l=column,
        column_cm=across,
        fits=fits,
        enough=enough,
    )
