"""Sizing rules: what each school asks of this tank and stock, side by side, never averaged."""

from pydantic import Field

from reedmace.core.contract import (
    Answer,
    Working,
    computation,
)
from reedmace.core.filter.site.site import Site
from reedmace.core.filter.sizing_demand import FlowRequirementQuestion, SizingDemand, sizing_demand
from reedmace.core.filter.sizing_schools import HEAVY_FROM, RULES, SizingRule
from reedmace.core.flow.currents import comfort_cm_s
from reedmace.core.quantity import formatting
from reedmace.core.stock import Animals
from reedmace.core.stock.species import Sizing, Species, find_species


class FlowRequirementAnswer(Answer):
    """Every rule side by side, the one followed, and the animals that need slow water."""

    sizing: Sizing
    light: bool = Field(
        description="Whether plants and the tank's own film carry this stock, so that hardly a filter is needed"
    )
    heavy: bool = Field(description="Whether the media school asks twice as much of this stock")
    sizing_rules: list[SizingRule]
    calm_words: str = Field(description="Who rests only in slow water, and how slow")


@computation("flow-requirement", "What each sizing rule asks for")
def flow_requirement(question: FlowRequirementQuestion) -> FlowRequirementAnswer:
    """What each sizing rule asks of this tank and stock.

    question: net water in L, animals.
    Raises CannotAnswer for an unknown species.
    Source: common practice for the turnover, media and label schools; Timmons and Ebeling's mass balance
    Q = P / (E × C) for load, with single-pass share E 0.5 and target C 0.1 mg N/L from memory.
    """
    q, w = question, Working()
    d = sizing_demand(q, w)
    found = (rule(d, w) for rule in RULES)
    return FlowRequirementAnswer(
        verdict=_flow_verdict(d),
        working=w.lines,
        sizing=d.sizing,
        light=d.light,
        heavy=d.demanding >= HEAVY_FROM,
        sizing_rules=[rule for rule in found if rule is not None],
        calm_words=_calm_words(q),
    )


def _flow_verdict(d: SizingDemand) -> str:
    if d.light:
        return (
            "Plants and the tank's own film carry so few animals:"
            f" {formatting.lph(d.delivered_lph[0])} keeps the surface moving, from a small sponge or anything larger."
        )
    low, high = d.delivered_lph
    return (
        f"Careful keepers ask for {formatting.lph.bare(low)} to {formatting.lph(high)} delivered; a shop would look for"
        f" {formatting.lph.bare(d.rated_lph[0])} to {formatting.lph.bare(d.rated_lph[1])} on the box."
    )


def flow_requirement_here(
    site: Site, animals: list[Animals], own_species: list[Species], temperature_c: float
) -> FlowRequirementAnswer:
    """What each rule asks of a tank as it stands.

    site: the tank's; animals, own_species: as in the question; temperature_c: °C.
    """
    return flow_requirement(
        FlowRequirementQuestion(
            net_l=site.net_l,
            animals=animals,
            own_species=own_species,
            water=site.water,
            planted=site.planted,
            film_here_m2=site.film_here_m2,
            temperature_c=temperature_c,
        )
    )


def _calm_words(q: FlowRequirementQuestion) -> str:
    """The animals that rest only in slow water, in words. q: the question."""
    gentle = {
        s.common_name: comfort_cm_s(a.length_cm or s.adult_length_cm, s.current)
        for a, s in ((a, find_species(a.species_id, "animals", q.own_species)) for a in q.animals)
        if s.current == "gentle"
    }
    if not gentle:
        return "None of these animals needs still water."
    who = " and ".join(f"{name} (under {formatting.cm(speed, '.2g')} a second)" for name, speed in gentle.items())
    return f"At least half of the water is to be calm for {who}: spread the outlet rather than buy a weak filter."
