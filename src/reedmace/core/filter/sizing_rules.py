"""Sizing rules: what each school asks of this tank and stock, side by side, never averaged."""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import (
    Answer,
    Celsius,
    Lph,
    NetLitres,
    Part,
    Question,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.film import AREAL_RATE, film_needed_m2
from reedmace.core.filter.site.site import Site
from reedmace.core.flow.currents import comfort_cm_s
from reedmace.core.quantity import formatting
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load
from reedmace.core.stock.flow_demand import (
    DEMANDING,
    FULL_MG_N_L_DAY,
    blended_requirement,
    class_weights,
    dominant_class,
)
from reedmace.core.stock.species import Sizing, Species, Water, find_species

RATED_BAND: dict[Sizing, tuple[float, float, str]] = {
    # Tank volumes an hour on the box, by the most demanding animal. Common practice unless "memory".
    "gentle": (2, 4, "memory"),
    "community": (4, 6, "practice"),
    "messy": (8, 10, "practice"),
    "cichlid": (8, 12, "practice"),
    "turtle": (6, 8, "practice"),
    "goldfish": (10, 12, "practice"),
}
SPONGE_L = 115.0
"""Tank volume one sponge is used for, two or more above (common practice)."""
LABEL_FULL_MG_N_L_DAY = 0.12
"""Ammonia nitrogen a day of a full tropical community, for which labels are made (memory), mg N/L."""
IN_SERVICE = 0.80
"""Delivered over rated flow of a filter in service: the box less about 20 % (common practice)."""
ENOUGH_SHARE = 0.7
"""Share of the required flow from which a filter is admitted, a little slow (common practice)."""
SLOWEST_PER_HOUR = 1.0
"""Turnover per hour below which water is stagnant whatever the film (memory)."""
LIGHT_MG_N_L_DAY = 0.15
"""Ammonia nitrogen a day up to which a planted tank counts as lightly stocked, mg N/L (memory)."""
LIGHT_FILM = 2.0
"""Multiple of that load the tank's own glass, gravel and decor must carry."""
SINGLE_PASS, TARGET_TAN = 0.5, 0.1

CIRCULATION_PER_HOUR = (10.0, 20.0)
"""Turnover per hour in salt water by circulation pumps in the tank, apart from the filter (common practice)."""

SizingRuleName = Literal["rated", "canister-only", "delivered", "circulation", "media", "load", "count", "label"]


class FlowRequirementQuestion(Question):
    """This water and these animals."""

    net_l: NetLitres
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    water: Water = "fresh"
    planted: bool = False
    film_here_m2: Annotated[float, number("m²", 0, 1e5, "Of the tank itself")] = 0
    temperature_c: Celsius = 25


class SizingRule(Part):
    """One rule's requirement. Flow rules give L/h; media gives kg; label gives the tank size to look for on a box."""

    rule: SizingRuleName
    title: str
    asks: str
    basis: Literal["box flow", "delivered flow", "media", "count", "label"]
    low_lph: Lph | None = None
    high_lph: Lph | None = None
    media_kg: Annotated[float, number("kg", 0, 1e6)] | None = None
    film_m2: Annotated[float, number("m²", 0, 1e7)] | None = None
    count: Annotated[int, whole(0, 100000, "Sponges")] | None = None
    label_l: Annotated[float, number("L", 0, 1e7)] | None = None
    followed: bool = False
    why: str


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
    present = [find_species(a.species_id, f"animals.{i}.species_id", q.own_species) for i, a in enumerate(q.animals)]
    waste = waste_load(WasteLoadQuestion(net_l=q.net_l, animals=q.animals, own_species=q.own_species))
    load = waste.ammonia_mg_n_day
    pull = class_weights(
        ((s.sizing, line.ammonia_mg_n_day) for s, line in zip(present, waste.lines, strict=True)), q.net_l
    )
    sizing = dominant_class(pull)
    source = RATED_BAND[sizing][2]
    # In salt water circulation pumps move the water, so the filter's flow need not rise with the stock.
    turns: dict[Sizing, float] = {"community": 1.0} if q.water == "salt" else pull
    low = blended_requirement(turns, {c: band[0] for c, band in RATED_BAND.items()})
    high = blended_requirement(turns, {c: band[1] for c, band in RATED_BAND.items()})
    for c, share in pull.items():
        if c in DEMANDING:
            w.line(
                f"pull of {c}",
                "smooth step of load / full tank",
                f"full at {FULL_MG_N_L_DAY:g} mg N/(L day)",
                share,
                "share",
                "memory",
            )
    demanding = max((pull.get(c, 0.0) for c in DEMANDING), default=0.0)
    full = min(load / q.net_l / LABEL_FULL_MG_N_L_DAY, 1.0)
    rated_low = w.sum("rated, low", "multiple × net litres", {"multiple": low, "net litres": q.net_l}, "L/h", source)
    rated_high = w.sum("rated, high", "multiple × net litres", {"multiple": high, "net litres": q.net_l}, "L/h", source)
    delivered_low = w.sum("delivered, low", "rated × 0.8", {"rated": rated_low, "0.8": IN_SERVICE}, "L/h", "practice")
    delivered_high = w.sum(
        "delivered, high", "rated × 0.8", {"rated": rated_high, "0.8": IN_SERVICE}, "L/h", "practice"
    )
    heavy = demanding >= 0.5
    light = _lightly_stocked(q, load)
    media = w.sum(
        "media", "kg per 100 L × litres / 100", {"kg per 100 L": 1 + demanding, "litres": q.net_l}, "kg", "practice"
    )
    through = w.sum("load", "P / 24 / (E × C)", {"P": load, "E": SINGLE_PASS, "C": TARGET_TAN}, "L/h", "timmons")
    film = w.sum("film", "P / areal rate", {"P": load, "areal rate": AREAL_RATE}, "m²", "memory")
    sizing_rules = [
        SizingRule(
            rule="rated",
            title="Rated turnover",
            asks=f"{low:.2g} to {high:.3g} times the tank, on the box",
            basis="box flow",
            low_lph=rated_low,
            high_lph=rated_high,
            why="Shop advice. Easy to check on a box, but the box flow is not what arrives.",
        ),
    ]
    if sizing in ("goldfish", "messy"):
        canister_low, canister_high = 6 * q.net_l, 8 * q.net_l
        w.line("canister", "6 × net litres", f"6 × {q.net_l:.1f}", canister_low, "L/h", "practice")
        sizing_rules.append(
            SizingRule(
                rule="canister-only",
                title="Canister keepers",
                asks="6 to 8 times the tank, on the box",
                basis="box flow",
                low_lph=canister_low,
                high_lph=canister_high,
                why="Keepers with canisters only hold that more media makes up for less flow.",
            )
        )
    sizing_rules.append(
        SizingRule(
            rule="delivered",
            title="Delivered turnover",
            asks=f"{low * IN_SERVICE:.1f} to {high * IN_SERVICE:.1f} times the tank, measured",
            basis="delivered flow",
            low_lph=delivered_low,
            high_lph=delivered_high,
            followed=not light,
            why=(
                "Followed for most tanks: it asks for the flow that really arrives, which can be checked with a bucket."
            ),
        )
    )
    if q.water == "salt":
        around = [
            w.sum(
                f"circulation, {end}", "times × net litres", {"times": times, "net litres": q.net_l}, "L/h", "practice"
            )
            for end, times in zip(("low", "high"), CIRCULATION_PER_HOUR, strict=True)
        ]
        sizing_rules.append(
            SizingRule(
                rule="circulation",
                title="Moving water in the tank",
                asks="10 to 20 times the tank, from pumps in the tank, apart from the filter",
                basis="delivered flow",
                low_lph=around[0],
                high_lph=around[1],
                why=(
                    "Salt-water keepers move the water with pumps of its own; the filter turns the tank over slowly"
                    " beside them."
                ),
            )
        )
    sizing_rules.append(
        SizingRule(
            rule="media",
            title="Media mass",
            asks=f"{formatting.kg(media, '.2g')} of sintered or ceramic media",
            basis="media",
            media_kg=media,
            why="Full-cycle canister keepers. It asks for no flow at all, only for room for the film.",
        )
    )
    sizing_rules.append(
        SizingRule(
            rule="load",
            title="Load",
            asks=(
                f"{formatting.lph(through)} and {film:.2g} m² of film"
                if load > 0
                else "nothing until animals are chosen"
            ),
            basis="delivered flow",
            low_lph=through,
            film_m2=film,
            why=(
                "Aquaculture engineering. For an ordinary tank it asks very little: strained dirt, flow and patience"
                " limit sooner."
            ),
        )
    )
    count = w.line(
        "sponges",
        "one to 115 L, one more for each 115 L above",
        f"⌈{q.net_l:.0f} / {SPONGE_L:g}⌉",
        math.ceil(q.net_l / SPONGE_L),
        "pieces",
        "practice",
    )
    sizing_rules.append(
        SizingRule(
            rule="count",
            title="Sponges by count",
            asks="one sponge, whatever the turnover" if count <= 1 else f"{count:.0f} sponges, whatever the turnover",
            basis="count",
            count=int(count),
            low_lph=SLOWEST_PER_HOUR * q.net_l if light else None,
            high_lph=delivered_high if light else None,
            followed=light,
            why=(
                "Breeders and fish rooms. Sponges with film enough are judged by it here too: the film of one carries"
                " far more than most tanks make, and patience does the rest; it strains less and is squeezed sooner"
                " under messy fish."
            ),
        )
    )
    if sizing == "goldfish":
        sizing_rules.append(
            SizingRule(
                rule="label",
                title="Tank size on the box",
                asks="ignore the label for goldfish",
                basis="label",
                why="The label assumes a light tropical stock; goldfish keepers leave it out.",
            )
        )
    else:
        # As printed for a moderate stock, reduced as it fills; turtles take it to a fifth or a third.
        share = 1 - 0.35 * full
        share -= (share - 0.26) * pull.get("turtle", 0.0)
        label = w.sum("label", "net litres / share", {"net litres": q.net_l, "share": share}, "L", "practice")
        sizing_rules.append(
            SizingRule(
                rule="label",
                title="Tank size on the box",
                asks=f"a box that says up to {formatting.litres(label)} or more",
                basis="label",
                label_l=label,
                why=(
                    "The label assumes a light tropical stock: as printed when moderate, 60 to 70 % of it when full, a"
                    " fifth to a third for turtles."
                ),
            )
        )
    verdict = (
        f"Plants and the tank's own film carry so few animals: {formatting.lph(SLOWEST_PER_HOUR * q.net_l)} keeps the"
        " surface moving, from one small sponge or anything larger."
        if light
        else (
            f"Careful keepers ask for {formatting.lph.bare(delivered_low)} to {formatting.lph(delivered_high)}"
            f" delivered; a shop would look for {formatting.lph.bare(rated_low)} to {formatting.lph.bare(rated_high)}"
            " on the box."
        )
    )
    return FlowRequirementAnswer(
        verdict=verdict,
        working=w.lines,
        sizing=sizing,
        light=light,
        heavy=heavy,
        sizing_rules=sizing_rules,
        calm_words=_calm_words(q),
    )


def _lightly_stocked(q: FlowRequirementQuestion, load_mg_n_day: float) -> bool:
    """Whether planted and so lightly stocked that the tank itself carries it.

    q: the question; load_mg_n_day: grown, mg N.
    """
    need = film_needed_m2(load_mg_n_day, q.temperature_c)
    few = bool(q.animals) and load_mg_n_day <= LIGHT_MG_N_L_DAY * q.net_l
    return q.planted and few and q.film_here_m2 >= LIGHT_FILM * need


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
