"""Fitting steps of a kind in order, with inspections before power and dependencies."""

from reedmace.core.contract import Answer, Question, Working, computation
from reedmace.core.filter.kind_parts.steps import Step, StepFacts
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.kinds import FilterKind, kind_of


class FittingStepsQuestion(StepFacts, Question):
    """What is fitted, and the sizes the steps mention."""

    kind: KindName


class FittingStepsAnswer(Answer):
    """Steps in order."""

    steps: list[Step]


def _with_inspections(steps: list[Step], kind: FilterKind) -> list[Step]:
    found: list[Step] = []
    for s in steps:
        inspections = kind.inspections.get(s.id, ())
        found += [Step(id=i, title=t, detail=d, look_at=p) for i, t, d, p in inspections]
        found.append(s)
    return found


def _locks(step_id: str, kind: FilterKind) -> tuple[str, ...]:
    """Steps to be done before a step, its inspections included.

    An inspection waits for what its power step waits for.
    """
    for power, inspections in kind.inspections.items():
        ids = tuple(look[0] for look in inspections)
        if step_id == power:
            return kind.after.get(power, ()) + ids
        if step_id in ids:
            return kind.after.get(power, ())
    return kind.after.get(step_id, ())


def leak_checks(kind: FilterKind) -> dict[str, str]:
    """The power step each leak check counts from. kind: the filter's."""
    prefix = f"{kind.prefix}-leak-"
    return {step: f"{kind.prefix}-power" for step in kind.after if step.startswith(prefix)}


@computation("fitting-steps", "How to fit it, in order")
def fitting_steps(question: FittingStepsQuestion) -> FittingStepsAnswer:
    """The steps for a kind, in order.

    question: kind and sizes in cm, L, mm, m. Source: common practice.
    """
    w, kind = Working(), kind_of(question.kind)
    built = _with_inspections(kind.steps(question, w), kind)
    ids = {s.id for s in built}
    steps = [s.model_copy(update={"after": [a for a in _locks(s.id, kind) if a in ids]}) for s in built]
    return FittingStepsAnswer(
        verdict=f"{len(steps)} steps, in this order. Leak checks are part of the job.", working=w.lines, steps=steps
    )
