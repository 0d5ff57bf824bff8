"""The map of kinds and sizes: each kind's row, and the sizes at which a usual box of it does."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

import numpy as np
from pydantic import Field

from reedmace.core.contract import Answer, Litres, Lph, Name, Part, Share, number, whole
from reedmace.core.filter.choice.boxes_here import BoxesHere
from reedmace.core.filter.choice.wishes import Wish
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.site.site import Priorities
from reedmace.core.filter.sizing_schools import AS_ASKED_SHARE
from reedmace.core.filter.typical import MAKES, SIZES, TypicalTable

DOES = 0.5
"""Share of makes that must do for a size to stand in the bar (a stated judgement)."""


TO_SPARE = 1.2
"""What the recommended size leaves to spare at both ends where the bar is wide enough (a fifth)."""


MOST_DO = 0.75
"""Share of makes that must do at the size recommended (a stated judgement)."""


class SizePoint(Part):
    """One size of a kind: what its box says, and the share of makes that would do here."""

    box_lph: Lph
    does_share: Share
    typical_id: Name = Field(description="Id of the box of that size as usually made, to look at it on the tank")


class KindRow(Part):
    """One kind on this tank: the sizes that do, what binds at each end, and the typical box at the size recommended."""

    kind: KindName
    title: Name
    fits: bool
    count: Annotated[int, whole(1, 4, "How many of that size: more than one where one does not do")]
    counted: bool = Field(description="Sold by the tank it is for and by number, not by flow")
    sizes: list[SizePoint]
    low_lph: Lph | None = Field(description="Smallest box that does; null where none does")
    high_lph: Lph | None
    low_label_l: Litres | None = Field(description="What such a box says it is for")
    high_label_l: Litres | None
    binds_low: str
    binds_high: str
    size_lph: Lph | None = Field(description="Size recommended")
    typical_id: Name = Field(description="Id of the usual box of that size; where none does, of one of middling size")
    does_share: Share
    moves_low_lph: Lph | None = Field(description="In service here, by the weaker makes")
    moves_high_lph: Lph | None
    service_days: Annotated[float, number("days", 0, 4000)] | None
    serviced: str = Field(description="How often it is cleaned, in a word or two")
    noise_db: Annotated[float, number("dB", 0, 140)] | None
    watts: Annotated[float, number("W", 0, 5000)] | None
    work: str
    ask_for: str = Field(description="As one asks for it in a shop; why it cannot serve, for a kind that cannot")
    look_for: list[str] = Field(description="What else the box must have")
    speaks: str = Field(description="What speaks for it and against, by what matters")
    caveats: list[str]
    barred: str | None = Field(description="Why it cannot serve here, null where it can")
    remedy: str | None


class TypeAndSizeAnswer(Answer):
    """Every kind in the order it serves this keeper; the verdict names kind and size, and `why` the reason."""

    why: str
    kinds: list[KindRow]
    too_many: str | None = Field(description="Why these animals are too many whatever the filter, null where not")
    asked_low_lph: Lph
    priorities: Priorities
    wishes: list[Wish]
    rests_on: str = Field(description="What typical boxes rest on besides memory; empty where on nothing")
    smallest_lph: Lph
    largest_lph: Lph


@dataclass(frozen=True)
class KindMap:
    """The typical boxes on this tank."""

    t: TypicalTable
    here: BoxesHere
    spare: bool
    """Whether one may fail: then two are wanted, of which each alone carries the load."""

    def shares_that_do(self, n: int, count: int) -> list[float]:
        """Share of makes that do, by size. n: number of the kind; count: how many of a box."""
        of_kind = self.t.kind == n
        do = self.here.do(count)
        if self.spare and count > 1:
            do = do & self.here.carries_alone()
        shares = do[of_kind].reshape(SIZES, MAKES).mean(axis=1)
        medians = np.flatnonzero(of_kind & (self.t.make == 0))
        # Currents and oxygen are those of the median make: they differ little between makes of one flow.
        return [
            0.0 if share > 0 and self.here.stirring_fault(int(i), count) else float(share)
            for share, i in zip(shares, medians, strict=True)
        ]

    def why_not(self, n: int, size: int, count: int) -> str:
        """What most makes of a size lack, in a few words. n: number of the kind; count: how many of a box."""
        rows = self.t.rows_of(n, size).tolist()
        words = [self.here.why_not(i, count) for i in rows]
        if self.spare and count > 1:
            alone = self.here.carries_alone()
            words = [word or ("" if alone[i] else "one alone falls short") for word, i in zip(words, rows, strict=True)]
        worst = self.here.stirring_fault(rows[0], count) if not words[0] else ""
        return most_said([word or worst for word in words])

    def smallest_that_moves_enough(self, n: int, count: int, share: list[float], window: tuple[int, int]) -> int | None:
        """Smallest size of a bar that most makes fill and that moves all that is asked; None where none does."""
        for s in range(window[0], window[1] + 1):
            moves = count * self.here.r.service[self.t.rows_of(n, s)[0]]
            if share[s] >= MOST_DO and moves >= AS_ASKED_SHARE * self.here.asked.low:
                return s
        return None


def most_said(words: Sequence[str]) -> str:
    """What most of some sentences say; empty where none says anything. words: each sentence, or an empty one."""
    return Counter(w for w in words if w).most_common(1)[0][0] if any(words) else ""
