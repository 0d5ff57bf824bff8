"""A tank of usual proportions for a volume that was named before anything was measured."""

from reedmace.core.contract import Answer, NetLitres, Question, Working, computation
from reedmace.core.quantity import formatting
from reedmace.core.tank.volume import TankVolumeQuestion

GLASS_MM, FILL_BELOW_RIM_CM, HIGHER_CM = 5.0, 3.0, 4.0
"""Glass, gap under the rim, and height beyond the width of a usual tank (memory)."""


class UsualTankQuestion(Question):
    """Net litres."""

    litres: NetLitres


class UsualTankAnswer(Answer):
    """Sizes of a usual tank that holds them; its litres count as they were named."""

    tank: TankVolumeQuestion


@computation("usual-tank", "The sizes that a tank of so many litres usually has, until it is measured")
def usual_tank(question: UsualTankQuestion) -> UsualTankAnswer:
    """Sizes of a box twice as long as wide and a little higher than wide.

    question: litres net. Source: proportions of tanks as sold (memory).
    """
    w = Working()
    wide = w.sum("width inside", "(V × 1000 / 2) ^ (1 / 3)", {"V": question.litres}, "cm", "memory")
    glass_cm = 2 * GLASS_MM / 10
    tank = TankVolumeQuestion(
        length_cm=round(2 * wide + glass_cm, 1),
        width_cm=round(wide + glass_cm, 1),
        height_cm=round(wide + HIGHER_CM, 1),
        glass_mm=GLASS_MM,
        fill_below_rim_cm=FILL_BELOW_RIM_CM,
        counted_l=question.litres,
    )
    sizes = " × ".join(formatting.cm.bare(size) for size in (tank.length_cm, tank.width_cm))
    return UsualTankAnswer(
        verdict=(
            f"A usual tank of {formatting.litres(question.litres)} measures {sizes} × {formatting.cm(tank.height_cm)}."
        ),
        working=w.lines,
        tank=tank,
    )
