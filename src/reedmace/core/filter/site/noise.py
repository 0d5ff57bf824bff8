"""Sound level at a metre: the filter itself, falling water, and an air pump beside the tank or elsewhere."""

from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.filter.site.site import RoomKind
from reedmace.core.quantity import formatting

Floats = NDArray[np.float64]

QUIETEST_DB, STEP_DB = 20.0, 6.0
"""Sound of the quietest filter at a metre, and of each of the four steps above it (memory)."""
KEPT_FALL_CM = 3.0
"""Fall of the water already included in the box's step: the water stands near the lip (common practice)."""
FALL_DB = 18.0
"""Sound of one L/min falling one centimetre further (memory); energy goes with flow times height."""
DRAIN_FALL_CM, DRAIN_MUFFLED_DB = 15.0, 10.0
"""Fall of a sump's water through its drain, and what pipe and cabinet take from its sound (memory)."""
PUMP_ELSEWHERE_DB = 4.0
"""Reduction for an air-driven filter whose pump does not stand beside it (memory)."""
STONE_DB = 3.0
"""Reduction by an air stone against plain bubbles (memory)."""
CABINET_DB, LID_DB = 6.0, 3.0
"""Reduction of what stands in a cabinet with its doors shut, and of bubbles and falls under a lid (memory)."""
DROP_CM = 4.0
"""Fall of the level before many keepers top up (common practice)."""
HEARD_FROM_DB: dict[RoomKind, float] = {"bedroom": 22, "living": 30, "workshop": 40, "shop": 40, "fish-room": 46}
"""Background level of such a room (memory)."""
DISTURBS_DB = 10.0
"""Level above the background that disturbs: twice as loud to the ear (common practice)."""

Heard = Literal["hardly", "heard", "disturbs"]


def step_of(level_db: float) -> float:
    """Step of a box, 1 and up, from its level. level_db: dB(A) at a metre, as printed or metered.

    >>> step_of(32.0)
    3.0
    """
    return 1 + (level_db - QUIETEST_DB) / STEP_DB


def fall_db(flow_lph: Floats, fall_cm: float) -> Floats:
    """Sound of water that falls further than usual, dB(A) at a metre; far below hearing where it does not.

    flow_lph: (n,) L/h over the lip, 0 where nothing falls; fall_cm: water to lip, cm.
    """
    power = np.maximum(flow_lph, 0.0) / 60 * max(fall_cm - KEPT_FALL_CM, 0.0)
    return np.asarray(np.where(power > 0, FALL_DB + 10 * np.log10(np.maximum(power, 1e-9)), -100.0))


def added_db(*levels: Floats) -> Floats:
    """Sum of levels, dB: their energies add. levels: (n,) each."""
    return np.asarray(10 * np.log10(np.sum([10 ** (level / 10) for level in levels], axis=0)))


def heard_db(
    step: Floats,
    air: NDArray[np.bool_],
    falls_lph: Floats,
    fall_cm: float,
    *,
    pump_here: bool,
    stones: bool = False,
    drains_lph: Floats | None = None,
    beneath: NDArray[np.bool_] | None = None,
    cabinet_shut: bool = False,
    lid: bool = False,
) -> Floats:
    """Sound of each filter at a metre, dB(A).

    step: noise of the box, 1 to 5 (n,); air: driven by air (n,); falls_lph: over a lip, L/h (n,); fall_cm: water to
    lip, cm; pump_here: whether the air pump stands beside the tank; stones: whether the air goes through stones;
    drains_lph: through a drain into a sump, L/h (n,); beneath: standing under the tank (n,); cabinet_shut: whether in
    a cabinet with doors; lid: whether the tank is closed to its edges. Source: memory.
    """
    own = QUIETEST_DB + STEP_DB * (step - 1)
    if cabinet_shut and beneath is not None:
        own = np.where(beneath, np.maximum(own - CABINET_DB, QUIETEST_DB), own)
    covered = LID_DB if lid else 0.0
    quieter = (0.0 if pump_here else PUMP_ELSEWHERE_DB) + (STONE_DB if stones else 0.0)
    quieter += covered
    own = np.where(air & (quieter > 0), np.maximum(own - quieter, QUIETEST_DB), own)
    drains = np.zeros_like(falls_lph) if drains_lph is None else drains_lph
    return added_db(own, fall_db(falls_lph, fall_cm) - covered, fall_db(drains, DRAIN_FALL_CM) - DRAIN_MUFFLED_DB)


def quiet_score(level_db: Floats) -> Floats:
    """Quietness score: 1 at 20 dB, 0 at 44. level_db: dB(A) at a metre, any shape."""
    return np.asarray(np.clip(1 - (level_db - QUIETEST_DB) / (4 * STEP_DB), 0, 1))


def level_of(score: Floats) -> Floats:
    """Sound level of a quietness score, dB(A). score: 0 to 1, any shape."""
    return QUIETEST_DB + 4 * STEP_DB * (1 - score)


class NoiseSource(Part):
    """One filter as a sound source."""

    noise: Annotated[int, whole(1, 5, "1 hardly heard, 5 loud")] = 2
    level_db: Annotated[float, number("dB", 5, 80, "At a metre, where its box or a meter says")] | None = None
    air_driven: bool = False
    falls_lph: Annotated[float, number("L/h", 0, 1e6, "Over a lip, back into the tank")] = 0
    drains_lph: Annotated[float, number("L/h", 0, 1e6, "Through a drain into a sump: it is what is heard of one")] = 0
    beneath: bool = Field(default=False, description="It stands under the tank")


class NoiseHeardQuestion(Question):
    """The filters, how far their water falls, and where the tank stands."""

    filters: Annotated[list[NoiseSource], Field(min_length=1, max_length=12)]
    fall_cm: Annotated[float, number("cm", 0, 200, "Water to the lip, or to the rim it hangs on")] = KEPT_FALL_CM
    stones: bool = Field(default=False, description="Air stones in the lift tubes")
    pump_here: bool = Field(default=True, description="The air pump stands beside the tank")
    cabinet_shut: bool = Field(default=False, description="What stands beneath has doors before it")
    lid: bool = Field(default=False, description="The tank is closed to its edges")
    where: RoomKind = "living"


class NoiseHeardAnswer(Answer):
    """Sound now, and when the water level has dropped."""

    level_db: Annotated[float, number("dB", 0, 140, "At a metre, A-weighted")]
    dropped_db: Annotated[float, number("dB", 0, 140, "When the water stands lower")]
    heard: Heard


@computation("noise-heard", "How loud a set of filters is in this room, now and when the water drops")
def noise_heard(question: NoiseHeardQuestion) -> NoiseHeardAnswer:
    """Sound of a set of filters where the tank stands.

    question: noise steps, L/h over a lip, fall in cm. Source: levels from memory; energies add.
    """
    q, w = question, Working()
    step = np.array([float(f.noise) if f.level_db is None else step_of(f.level_db) for f in q.filters])
    beneath = np.array([f.beneath for f in q.filters])
    air = np.array([f.air_driven for f in q.filters])
    falls, drains = (np.array([getattr(f, name) for f in q.filters]) for name in ("falls_lph", "drains_lph"))

    def level(fall_cm: float) -> float:
        each = heard_db(
            step,
            air,
            falls,
            fall_cm,
            pump_here=q.pump_here,
            stones=q.stones,
            drains_lph=drains,
            beneath=beneath,
            cabinet_shut=q.cabinet_shut,
            lid=q.lid,
        )
        return float(added_db(*each[:, None])[0])

    now, later = level(q.fall_cm), level(q.fall_cm + DROP_CM)
    w.line("L", "10 log Σ 10^(L/10)", f"{len(q.filters)} filters, fall {q.fall_cm:g} cm", now, "dB", "memory")
    w.line("L low", "the same, water lower", f"fall {q.fall_cm + DROP_CM:g} cm", later, "dB", "memory")
    limit = HEARD_FROM_DB[q.where]
    heard: Heard = "hardly" if now <= limit else "heard" if now <= limit + DISTURBS_DB else "disturbs"
    words = {"hardly": "Hardly heard", "heard": "Heard", "disturbs": "Loud"}[heard]
    place = {
        "bedroom": "in a bedroom",
        "living": "in a living room",
        "workshop": "in a workshop",
        "shop": "in a shop",
        "fish-room": "in a fish room",
    }[q.where]
    louder = (
        f" With the water {formatting.cm(DROP_CM)} lower it splashes, about {later - now:.0f} dB louder: top it up."
        if later - now >= 3
        else ""
    )
    return NoiseHeardAnswer(
        verdict=f"{words} {place}: about {now:.0f} dB at a metre.{louder}",
        working=w.lines,
        level_db=now,
        dropped_db=later,
        heard=heard,
    )
