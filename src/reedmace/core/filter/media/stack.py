"""A stack of media: order, fit, surface, and its effect on the flow."""

from collections.abc import Callable
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Celsius, Issue, Litres, Lph, Question, Working, computation, number
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_flow import FilterFlowAnswer, FilterFlowQuestion, filter_flow
from reedmace.core.filter.kind_parts.media_path import PATH_WORDS
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.filter.sizing_rules import flow_requirement_here
from reedmace.core.flow.materials import MEDIA_KG_L, MEDIA_NAMES, MEDIA_SURFACE_M2_L
from reedmace.core.quantity import formatting
from reedmace.core.stock import Animals, Species

_RANK: dict[str, int] = {"foam-10": 0, "foam-20": 1, "foam-30": 2, "floss": 3, "cartridge": 3}
_CHEMICAL = ("carbon", "zeolite")
GAP_FILL = 0.6
BYPASS_SHARE = 0.2
"""Share of the flow that bypasses an unsealed tray (memory)."""


class MediaStackQuestion(Question):
    """The media of a filter on its tank; its own water path gives the flow."""

    filter: Filter
    site: Site
    plumbing: Plumbing = Field(default_factory=Plumbing)
    baskets: Annotated[list[Basket], Field(max_length=12)]
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Really fed; left out, by the animals")] | None = None
    food_share: Annotated[float, number("share", 0, 1, "Of the tank's food whose dirt this filter catches")] = 1
    temperature_c: Celsius = 25


class MediaStackAnswer(Answer):
    """Fit, surface, guidance and flow of a stack."""

    path_words: str
    faults: list[Issue]
    advice: list[str]
    volume_l: Litres
    fill_share: Annotated[float, number("share", 0, 1e4)]
    mass_kg: Annotated[float, number("kg", 0, 1e5)]
    film_m2: Annotated[float, number("m²", 0, 1e6)]
    asked_kg: Annotated[float, number("kg", 0, 1e5, "By the media-mass school")]
    has_kg: Annotated[float, number("kg", 0, 1e5, "Ceramic and sintered media")]
    clean_lph: Lph | None
    dirty_lph: Lph | None = Field(description="After the service interval")
    service_days: Annotated[float, number("days", 0, 4000, "Between cleanings here")] | None


def _comes_before_coarser(b: Basket, later: list[Basket]) -> bool:
    return b.media in _RANK and any(n.media in _RANK and _RANK[n.media] < _RANK[b.media] for n in later)


def _meets_dirt_first(b: Basket, later: list[Basket]) -> bool:
    return b.media not in _RANK and b.media not in _CHEMICAL and any(n.media in _RANK for n in later)


_LYING_WRONG: tuple[tuple[Callable[[Basket, list[Basket]], bool], str, str], ...] = (
    (_comes_before_coarser, "The {} comes before a coarser one and clogs first.", "Put the coarser before it."),
    (_meets_dirt_first, "The {} meets the dirt before the foam does.", "Foam first, film media after it."),
    (
        lambda b, later: b.media in _CHEMICAL and bool(later),
        "The {} comes early and is coated with dirt.",
        "Chemical media last, if at all.",
    ),
    (lambda b, _: b.bagged, "The {} is still in its plastic bag.", "Take it out and rinse the dust off."),
    (
        lambda b, _: not b.seated,
        f"The tray of {{}} is not down: about {BYPASS_SHARE:.0%} of the water slips past.",
        "Seat it until its lip seals; a lid that will not close means a tray is not down.",
    ),
)
"""Faults of one basket, given those after it: (holds, what, remedy), in the order they are said."""


def _faults(q: MediaStackQuestion, fill: float) -> list[Issue]:
    """What lies wrong, basket by basket, then of the whole stack. fill: share of the room that is filled."""
    found = [
        Issue(where=f"basket {i}", what=what.format(MEDIA_NAMES[b.media]), remedy=remedy)
        for i, b in enumerate(q.baskets, start=1)
        for holds, what, remedy in _LYING_WRONG
        if holds(b, q.baskets[i:])
    ]
    most = kind_of(q.filter.kind).fill_most
    if fill > most:
        what = (
            "It is crammed: swelling with dirt it lifts the lid and spills over the back."
            if most < 1
            else "There is more than fits."
        )
        found.append(
            Issue(
                where="stack",
                what=what,
                remedy=f"Take out {formatting.litres((fill - most) * q.filter.media_l, '.2g')}.",
            )
        )
    if q.baskets and fill < GAP_FILL:
        found.append(
            Issue(
                where="stack",
                what=f"Only {fill:.0%} of the room is filled, so water finds a way round.",
                remedy="Add foam or film media until the trays are full.",
            )
        )
    return found


def _advice(q: MediaStackQuestion) -> list[str]:
    kinds = [b.media for b in q.baskets]
    found = []
    if "cartridge" in kinds:
        found.append(
            "A cartridge is easy, and shops and some beginners like it; thrown away, it takes the film with it. Foam"
            " that is rinsed in tank water keeps the film and costs nothing."
        )
    if "carbon" in kinds:
        found.append(
            "Carbon takes out medicine, tannin and smell; good carbon lasts about three months, poor carbon weeks."
        )
    if not any(k in _RANK for k in kinds):
        found.append("Nothing strains particles: begin with coarse foam.")
    if kinds and not any(k not in _CHEMICAL and k not in ("floss", "cartridge") for k in kinds):
        found.append("Nothing here keeps its film when cleaned: add foam or ceramic.")
    if "floss" in kinds and kind_of(q.filter.kind).fill_most >= 1:
        found.append("Floss polishes and clogs; a thick coarse foam with a medium one can stand in for a fine pad.")
    return found


def _flow(q: MediaStackQuestion, w: Working) -> FilterFlowAnswer:
    """The flow through the stack; w: gets its lines."""
    path = filter_flow(
        FilterFlowQuestion(
            filter=q.filter,
            site=q.site,
            plumbing=q.plumbing,
            media=q.baskets,
            animals=q.animals,
            own_species=q.own_species,
            feed_g_day=q.feed_g_day,
            food_share=q.food_share,
            temperature_c=q.temperature_c,
        )
    )
    w.lines.extend(path.working)
    return path


def _verdict(q: MediaStackQuestion, faults: list[Issue], path: FilterFlowAnswer | None) -> str:
    """Whether they lie right, and for how long water passes. path: the flow, None without media."""
    if not q.baskets:
        verdict = f"Nothing is in it yet. {PATH_WORDS[q.filter.media_path]}"
    elif faults:
        verdict = f"{faults[0].what} {faults[0].remedy}"
    else:
        verdict = f"In good order: {', '.join(MEDIA_NAMES[b.media] for b in q.baskets)}."
    if path is None or path.service_days is None:
        return verdict
    passes = formatting.lph(path.delivered_lph)
    return f"{verdict} It passes {passes} clean and wants cleaning after about {path.service_days:.0f} days."


@computation("media-stack", "Whether the media lie right, and what they do to the flow")
def media_stack(question: MediaStackQuestion) -> MediaStackAnswer:
    """Order, fit and surface of a stack of media, and the flow through it.

    question: volumes in L, face in cm², plumbing in mm and m, food in g/day.
    Source: order, fill and school common practice; surfaces, masses and clogging from memory; flow by Forchheimer,
    Ergun 1952 and Darcy-Weisbach.
    """
    q, w, f = question, Working(), question.filter
    heavy = flow_requirement_here(q.site, q.animals, q.own_species, q.temperature_c).heavy
    volume = w.line(
        "V", "sum of the media", f"{len(q.baskets)} of them", sum(b.litres for b in q.baskets), "L", "arithmetic"
    )
    space = max(f.media_l, 0.05)
    fill = w.sum("fill", "V / room", {"V": volume, "room": space}, "share", "arithmetic")
    mass = w.line("m", "Σ litres × kg/L", "dry", sum(b.litres * MEDIA_KG_L[b.media] for b in q.baskets), "kg", "memory")
    film = w.line(
        "A",
        "Σ litres × m²/L that water passes",
        "pores it does not pass are left out",
        sum(b.litres * MEDIA_SURFACE_M2_L[b.media] for b in q.baskets),
        "m²",
        "memory",
    )
    if f.wheel_m2:
        film = w.sum("film", "media + wheel", {"media": film, "wheel": f.wheel_m2}, "m²", "memory")
    asked = w.line(
        "asked",
        "1 or 2 kg per 100 L",
        f"{2 if heavy else 1} × {q.site.net_l:.0f} / 100",
        (2 if heavy else 1) * q.site.net_l / 100,
        "kg",
        "practice",
    )
    has = w.line(
        "has",
        "ceramic and sintered",
        "kg",
        sum(b.litres * MEDIA_KG_L[b.media] for b in q.baskets if b.media in ("ceramic-rings", "sintered", "lava")),
        "kg",
        "memory",
    )
    path = _flow(q, w) if q.baskets else None
    faults = _faults(q, fill)
    return MediaStackAnswer(
        verdict=_verdict(q, faults, path),
        working=w.lines,
        path_words=PATH_WORDS[f.media_path],
        faults=faults,
        advice=_advice(q),
        volume_l=volume,
        fill_share=fill,
        mass_kg=mass,
        film_m2=film,
        asked_kg=asked,
        has_kg=has,
        clean_lph=path.delivered_lph if path else None,
        dirty_lph=path.service_lph if path else None,
        service_days=path.service_days if path else None,
    )
