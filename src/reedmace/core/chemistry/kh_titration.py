"""KH by counted drops: what they say, how surely, and what a larger sample would tell."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Question, Working, computation, number, whole

KIT_ML = 5.0
"""Sample most drop kits are made for (common practice)."""
DROP_SHARE, LINE_ML = 0.05, 0.2
"""Doubt of the reagent's drops together, as a share, and of filling to the line, mL (memory)."""
FINE_DKH, TWICE = 0.5, 2.0
"""Step from which no larger sample is worth its reagent, dKH, and how much larger one is taken (common practice)."""

Dkh = Annotated[float, number("dKH", 0, 400)]


class KhTitrationQuestion(Question):
    """The drops that turned the colour, and the sample they fell into."""

    drops_count: Annotated[int, whole(1, 100, "Up to and with the one that turned the colour")]
    sample_ml: Annotated[float, number("mL", 1, 50)] = KIT_ML
    drop_dkh: Annotated[float, number("dKH", 0.05, 5, "A drop counts so much in the kit's own sample")] = 1
    kit_ml: Annotated[float, number("mL", 1, 50, "The sample its leaflet asks for")] = KIT_ML


class KhTitrationAnswer(Answer):
    """KH as the kit counts it, its range, and the step of one drop."""

    kh_dkh: Dkh
    low_dkh: Dkh
    high_dkh: Dkh
    step_dkh: Annotated[float, number("dKH", 0, 400, "Of one drop in this sample")]
    finer_ml: Annotated[float, number("mL", 1, 100)] | None = Field(
        description="A sample in which a drop counts half; none where it is fine already"
    )


@computation("kh-titration", "KH by counted drops, with its range")
def kh_titration(question: KhTitrationQuestion) -> KhTitrationAnswer:
    """KH from the drops of an acid reagent.

    question: drops, sample in mL, dKH a drop. The colour turns somewhere within the last drop, so the water lies
    between one drop less and the count; drops and sample add their own doubt by squares. Source: the kit's leaflet;
    equal volumes of reagent neutralise equal alkalinity.
    """
    q, w = question, Working()
    step = w.sum(
        "step",
        "drop × kit / sample",
        {"drop": q.drop_dkh, "kit": q.kit_ml, "sample": q.sample_ml},
        "dKH",
        "label",
    )
    kh = w.sum("KH", "drops × step", {"drops": q.drops_count, "step": step}, "dKH", "arithmetic")
    share = w.line(
        "±",
        "√(drops² + (line / sample)²)",
        f"√({DROP_SHARE:g}² + ({LINE_ML:g} / {q.sample_ml:g})²)",
        math.hypot(DROP_SHARE, LINE_ML / q.sample_ml),
        "share",
        "memory",
    )
    low = max((q.drops_count - 1) * step * (1 - share), 0.0)
    high = kh * (1 + share)
    finer = TWICE * q.sample_ml if step > FINE_DKH and TWICE * q.sample_ml <= 50 else None
    tip = f" In {finer:g} mL a drop counts {step / TWICE:.2g}." if finer else ""
    return KhTitrationAnswer(
        verdict=f"KH is {kh:.3g} dKH by the kit, between {low:.2g} and {high:.2g}: the last drop counts whole.{tip}",
        working=w.lines,
        kh_dkh=kh,
        low_dkh=low,
        high_dkh=high,
        step_dkh=step,
        finer_ml=finer,
    )
