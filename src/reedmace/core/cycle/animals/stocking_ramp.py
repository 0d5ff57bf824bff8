"""Stocking ramp: how many of which animals on which day, so that the load never exceeds proven capacity."""

from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Name, NetLitres, Part, Question, Share, Working, computation, number, whole
from reedmace.core.quantity.units import Basis, ppm_words
from reedmace.core.stock import Animals, Species, WasteLoadAnswer, WasteLoadQuestion, waste_load

MARGIN = 1.2
"""A dose gone in a day carries that dose divided by 1.2, the margin of the load-matched standard."""
STEP_UP = 1.5
"""Growth of the stock per step:

a week of zeros proves the present load, and half as much is added at a time (memory, cautious).
"""
SHOAL = 6
"""Smallest group of a shoaling species put in together;

applied to every species planned in such numbers (common practice).
"""
FIRST_SHARE = 0.5
PROOF_HOLDS_DAYS = 14
"""Days for which a cleared dose counts, if animals provide a good part of it meanwhile (memory)."""
LOAD_TEST = (
    "Load test between steps: fed as usual, ammonia and nitrite at zero on days 1, 3 and 7 after the last animals."
    " Otherwise wait and test again."
)


class StockingRampQuestion(Question):
    """The planned animals, and what the tank has been seen to clear in a day."""

    net_l: NetLitres
    proven_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000, "Largest dose gone within a day")]
    animals: Annotated[list[Animals], Field(min_length=1, max_length=60)]
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    present: Annotated[list[Animals], Field(max_length=60)] = Field(
        default_factory=list, description="Of the animals, those in already and carried with a week of zeros"
    )
    basis: Basis = Field(default="ion", description="In which the sentences speak of ppm")
    days_between: Annotated[int, whole(7, 60)] = 14


class AddedAnimals(Part):
    """A number of animals of one species."""

    species_id: Name
    common_name: Name
    count: Annotated[int, whole(1, 2000)]


class RampStep(Part):
    """One day on which animals are added, and what must hold first."""

    day: Annotated[float, number("days", 0, 2000, "From the first animals")]
    add: list[AddedAnimals]
    load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e6, "All animals in, grown")]
    plan_share: Share
    before: str

    def words(self) -> str:
        """The animals added, "6 × zebra danio and 2 × pearl gourami"."""
        return " and ".join(f"{a.count} × {a.common_name.lower()}" for a in self.add)


class StockingRampAnswer(Answer):
    """Steps in order; empty where even the first group exceeds the proven capacity."""

    steps: list[RampStep]
    first_load_allowed_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e6)]
    full_load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1e6)]
    load_test: str
    prove_mg_n_l: Annotated[float, number("mg N/L", 0, 1e6, "Dose that would prove the whole stock")]


@dataclass
class _RemainingAnimals:
    """Animals of one species still to be added."""

    species_id: str
    name: str
    count: int
    each: float
    shoal: int
    settled: bool = False


@computation("stocking-ramp", "How many of which animals, and when")
def stocking_ramp(question: StockingRampQuestion) -> StockingRampAnswer:
    """Dates and counts from proven capacity to the planned stock, small and many first.

    question: L, mg N/(L day), animals, days between steps.
    Source: Timmons and Ebeling for the loads; group sizes and pace are common practice.
    Raises CannotAnswer for a species nobody has listed.
    """
    q, w = question, Working()
    loads = waste_load(WasteLoadQuestion(net_l=q.net_l, animals=q.animals, own_species=q.own_species))
    full = w.line(
        "p full",
        "P / litres",
        f"{loads.ammonia_mg_n_day:.1f} / {q.net_l:.0f}",
        loads.ammonia_mg_n_l_day,
        "mg N/(L day)",
        "timmons",
    )
    allowed = w.sum(
        "p first", "proven / 1.2", {"proven": q.proven_mg_n_l_day, "1.2": MARGIN}, "mg N/(L day)", "practice"
    )
    left = _remaining(q, loads)
    # The group named where even it makes more than is proven.
    nearest = (left[0].name, left[0].shoal, left[0].each)
    steps, load = _stocking_steps(q, left, _carried(q, loads), full, allowed, w)
    prove = w.sum("prove", "1.2 × p full", {"p full": full, "1.2": MARGIN}, "mg N/L", "practice")
    return StockingRampAnswer(
        verdict=_verdict(q, steps, load, full, nearest),
        load_test=LOAD_TEST,
        working=w.lines,
        steps=steps,
        first_load_allowed_mg_n_l_day=allowed,
        full_load_mg_n_l_day=full,
        prove_mg_n_l=prove,
    )


def _remaining(q: StockingRampQuestion, loads: WasteLoadAnswer) -> list[_RemainingAnimals]:
    """What is still to be added, shoaling species first, then single and large ones (common practice)."""
    here = {a.species_id: a.count for a in q.present}
    return sorted(
        (
            _RemainingAnimals(
                line.species_id,
                line.common_name,
                max(line.count - here.get(line.species_id, 0), 0),
                line.ammonia_mg_n_day / line.count / q.net_l,
                min(SHOAL, line.count),
                here.get(line.species_id, 0) > 0,
            )
            for line in loads.lines
        ),
        # Single and large ones settle among shoals.
        key=lambda one: (one.shoal < SHOAL, one.each),
    )


def _carried(q: StockingRampQuestion, loads: WasteLoadAnswer) -> float:
    """Load of the planned animals that are in already, mg N/(L day)."""
    here = {a.species_id: a.count for a in q.present}
    return sum(
        line.ammonia_mg_n_day / line.count / q.net_l * min(here.get(line.species_id, 0), line.count)
        for line in loads.lines
    )


def _stocking_steps(
    q: StockingRampQuestion, left: list[_RemainingAnimals], load: float, full: float, allowed: float, w: Working
) -> tuple[list[RampStep], float]:
    """The steps up to the whole stock, and the load after the last; none where the first group is over what is proven.

    left: emptied on the way; load: carried already; full: of the plan; allowed: by what is proven, mg N/(L day).
    """
    if load > 0:
        ceiling = w.sum(
            "p next",
            "max(1.5 × carried, proven / 1.2)",
            {"1.5": STEP_UP, "carried": load, "proven": q.proven_mg_n_l_day, "1.2": MARGIN},
            "mg N/(L day)",
            "memory",
        )
    else:
        ceiling = min(allowed, max(FIRST_SHARE * full, left[0].each * left[0].shoal)) if allowed > 0 else 0.0
    steps: list[RampStep] = []
    # Every step adds half as much again or at least one animal, so even thousands are added in a few dozen steps.
    while any(one.count for one in left):
        added = _take(left, ceiling - load)
        if not added:
            if not steps and load == 0:
                break
            added = [_some_of_the_smallest(left, ceiling - load)]
        group = sum(one.each * count for one, count in added)
        light = load > 0 and load + group > ceiling * 1.001
        first = not steps and load == 0
        load += group
        w.line(
            f"p step {len(steps) + 1}",
            "sum of loads",
            ", ".join(f"{count} {one.name}" for one, count in added),
            load,
            "mg N/(L day)",
            "timmons",
        )
        steps.append(
            RampStep(
                day=len(steps) * q.days_between,
                add=[
                    AddedAnimals(species_id=one.species_id, common_name=one.name, count=count) for one, count in added
                ],
                load_mg_n_l_day=load,
                plan_share=min(load / full, 1.0) if full else 1.0,
                before=_before(first=first, light=light),
            )
        )
        holds = len(steps) * q.days_between <= PROOF_HOLDS_DAYS
        ceiling = max(load * STEP_UP, allowed if holds else 0.0)
    return steps, load


def _some_of_the_smallest(left: list[_RemainingAnimals], room: float) -> tuple[_RemainingAnimals, int]:
    """Part of the smallest group where none fits whole, at least one: film grows only with what it is fed."""
    nearest = min((one for one in left if one.count), key=lambda one: one.each)
    count = min(max(int(room / nearest.each), 1), nearest.count)
    nearest.count -= count
    nearest.settled = True
    return nearest, count


def _before(*, first: bool, light: bool) -> str:
    if first:
        return "One large water change, at the animals' temperature."
    half = " This animal alone is more than half as much again: half rations for a week." if light else ""
    return f"After a week of zeros.{half}"


def _verdict(
    q: StockingRampQuestion, steps: list[RampStep], load: float, full: float, nearest: tuple[str, int, float]
) -> str:
    def ppm(mg_n_l: float) -> str:
        return ppm_words(mg_n_l, "ammonia", q.basis)

    if not steps and load > 0:
        return "All the planned animals are in."
    if not steps:
        name, shoal, each = nearest
        return (
            f"Nothing yet: even {shoal} × {name.lower()} make more than has been proven. Clear"
            f" {ppm(MARGIN * each * shoal)} of ammonia in a day first."
        )
    if load > 0 and q.present:
        rest = "then all are in" if len(steps) == 1 else f"the rest in {len(steps) - 1} more steps"
        return f"Next {steps[0].words()}; {rest}, each after a week of zeros."
    if len(steps) == 1:
        return (
            f"All of them together: {ppm(full)} of ammonia a day is well within the {ppm(q.proven_mg_n_l_day)} proven."
        )
    return (
        f"First {steps[0].words()}; the whole stock in {len(steps)} steps over {steps[-1].day:.0f} days, each after a"
        " week of zeros."
    )


def _take(left: list[_RemainingAnimals], room: float) -> list[tuple[_RemainingAnimals, int]]:
    """Animals that fit in `room` mg N/(L day), in order; a species first comes as a shoal."""
    taken: list[tuple[_RemainingAnimals, int]] = []
    for one in left:
        fits = min(int(room / one.each + 1e-9), one.count) if one.each > 0 else one.count
        fewest = 1 if one.settled else min(one.shoal, one.count)
        if one.count and fits >= fewest:
            taken.append((one, fits))
            room -= fits * one.each
    for one, count in taken:
        one.count -= count
        one.settled = True
    return taken
