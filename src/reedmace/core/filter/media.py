"""A filter's baskets: order, fit, surface, and what they do to the flow."""

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from reedmace.core.flow.kernel import meet
from reedmace.core.flow.materials import (
    MEDIA_KG_L,
    MEDIA_SURFACE_M2_L,
    MediaKind,
    dirt_resistance,
    media_coefficients,
    viscosity_m2_s,
)
from reedmace.core.flow.operating import Pump, minor_coefficient
from reedmace.core.quantity import lph_to_m3s, m3s_to_lph
from reedmace.core.working import Answer, Celsius, Litres, Lph, NetLitres, Part, Question, Working, number, whole

MediaPath = Literal["bottom-up", "top-down", "ring-then-down", "columns", "front-to-back", "through-foam", "chambers"]
PATH_WORDS: dict[str, str] = {
    "bottom-up": "Water rises: the first medium lies lowest.",
    "top-down": "Water falls: the first medium lies on top.",
    "ring-then-down": "Water goes through the outer foam ring first, then down through the middle.",
    "columns": "Water goes down one column and up the other: the first medium heads the first column.",
    "front-to-back": "Water goes from front to back: the first medium stands in front.",
    "through-foam": "Water enters through the foam from all sides.",
    "chambers": "Water goes from chamber to chamber: the first medium is where the drain comes down.",
}
_RANK: dict[str, int] = {"foam-10": 0, "foam-20": 1, "foam-30": 2, "floss": 3, "cartridge": 3}
_CHEMICAL = ("carbon", "zeolite")
MECHANICAL = tuple(_RANK)
_NAMES: dict[str, str] = {
    "foam-10": "coarse foam",
    "foam-20": "medium foam",
    "foam-30": "fine foam",
    "floss": "floss",
    "cartridge": "cartridge",
    "ceramic-rings": "ceramic rings",
    "sintered": "sintered media",
    "plastic-balls": "plastic balls",
    "lava": "lava",
    "carbon": "carbon",
    "zeolite": "zeolite",
}
HANG_ON_FILL = 0.85
"""A hang-on basket swells with dirt and lifts its lid: leave this share at most full (common practice)."""
GAP_FILL = 0.6
SERVICE_SHARE = 0.70
BYPASS_SHARE = 0.2
"""What slips past an unsealed tray, as a share of the flow (memory)."""


class Basket(Part):
    """One medium, in the order the water meets them."""

    media: MediaKind
    litres: Annotated[float, number("L", 0.01, 200)]
    bagged: bool = Field(default=False, description="Still in its plastic bag")
    seated: bool = Field(default=True, description="Tray down, lips sealing")


class MediaStackQuestion(Question):
    """What is in the filter, and the filter around it."""

    kind: Literal["sponge", "sheet", "hang-on", "internal", "canister", "sump", "box", "under-gravel"] = "canister"
    path: MediaPath = "bottom-up"
    baskets: Annotated[list[Basket], Field(max_length=12)]
    space_l: Annotated[float, number("L", 0.05, 500, "Room for media")]
    face_cm2: Annotated[float, number("cm²", 10, 50000)]
    net_l: NetLitres = 100
    heavy_stock: bool = False
    pump: Pump | None = None
    hose_bore_mm: Annotated[float, number("mm", 6, 110)] = 16
    hose_length_m: Annotated[float, number("m", 0, 50)] = 2.8
    fittings_k: Annotated[float, number("K", 0, 1000)] = 12
    rise_to_open_air_m: Annotated[float, number("m", 0, 10)] = 0
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] = 2
    temperature_c: Celsius = 25


class MediaFault(Part):
    """One thing wrong: which basket (none for the whole), what, and the remedy."""

    basket_index_count: Annotated[int, whole(0, 12, "Counted from 1; 0 for the stack as a whole")]
    what: str
    remedy: str


class MediaStackAnswer(Answer):
    """Fit, surface, school and flow of a stack."""

    path_words: str
    faults: list[MediaFault]
    advice: list[str]
    volume_l: Litres
    fill_share: Annotated[float, number("share", 0, 1e4)]
    mass_kg: Annotated[float, number("kg", 0, 1e5)]
    film_m2: Annotated[float, number("m²", 0, 1e6)]
    asked_kg: Annotated[float, number("kg", 0, 1e5, "By the media-mass school")]
    has_kg: Annotated[float, number("kg", 0, 1e5, "Ceramic and sintered media")]
    clean_lph: Lph | None
    dirty_lph: Lph | None = Field(description="After the service interval")
    service_day: Annotated[float, number("days", 0, 4000, "Until the flow is at 70 % of clean")] | None


def _faults(q: MediaStackQuestion, fill: float) -> list[MediaFault]:
    found: list[MediaFault] = []
    for i, b in enumerate(q.baskets, start=1):
        name = _NAMES[b.media]
        later = q.baskets[i:]
        if b.media in _RANK and any(n.media in _RANK and _RANK[n.media] < _RANK[b.media] for n in later):
            found.append(
                MediaFault(
                    basket_index_count=i,
                    what=f"The {name} comes before a coarser one and clogs first.",
                    remedy="Put the coarser before it.",
                )
            )
        if b.media not in _RANK and b.media not in _CHEMICAL and any(n.media in _RANK for n in later):
            found.append(
                MediaFault(
                    basket_index_count=i,
                    what=f"The {name} meets the dirt before the foam does.",
                    remedy="Foam first, film media after it.",
                )
            )
        if b.media in _CHEMICAL and later:
            found.append(
                MediaFault(
                    basket_index_count=i,
                    what=f"The {name} comes early and is coated with dirt.",
                    remedy="Chemical media last, if at all.",
                )
            )
        if b.bagged:
            found.append(
                MediaFault(
                    basket_index_count=i,
                    what=f"The {name} is still in its plastic bag.",
                    remedy="Take it out and rinse the dust off.",
                )
            )
        if not b.seated:
            found.append(
                MediaFault(
                    basket_index_count=i,
                    what=f"The tray of {name} is not down: about {BYPASS_SHARE:.0%} of the water slips past.",
                    remedy="Seat it until its lip seals; a lid that will not close means a tray is not down.",
                )
            )
    most = HANG_ON_FILL if q.kind == "hang-on" else 1.0
    if fill > most:
        what = (
            "It is crammed: swelling with dirt it lifts the lid and spills over the back."
            if q.kind == "hang-on"
            else "There is more than fits."
        )
        found.append(MediaFault(basket_index_count=0, what=what, remedy=f"Take out {(fill - most) * q.space_l:.2g} L."))
    if q.baskets and fill < GAP_FILL:
        found.append(
            MediaFault(
                basket_index_count=0,
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
            "A cartridge is easy, and shops and some beginners like it; thrown away, it takes the film with it. Foam that is rinsed in tank water keeps the film and costs nothing."
        )
    if "carbon" in kinds:
        found.append(
            "Carbon takes out medicine, tannin and smell; good carbon lasts about three months, poor carbon weeks."
        )
    if not any(k in _RANK for k in kinds):
        found.append("Nothing strains particles: begin with coarse foam.")
    if kinds and not any(k not in _CHEMICAL and k not in ("floss", "cartridge") for k in kinds):
        found.append("Nothing here keeps its film when cleaned: add foam or ceramic.")
    if "floss" in kinds and q.kind != "hang-on":
        found.append("Floss polishes and clogs; a thick coarse foam with a medium one can stand in for a fine pad.")
    return found


def media_stack(question: MediaStackQuestion) -> MediaStackAnswer:
    """What a stack of media does: order, fit, surface, and the flow through it.

    question: volumes in L, face in cm², plumbing in mm and m, food in g/day.
    Source: order, fill and school common practice; surfaces, masses and clogging from memory; flow by Forchheimer,
    Ergun 1952 and Darcy-Weisbach.
    """
    q, w = question, Working()
    area, nu = q.face_cm2 / 1e4, viscosity_m2_s(q.temperature_c)
    volume = w.line(
        "V", "sum of the media", f"{len(q.baskets)} of them", sum(b.litres for b in q.baskets), "L", "arithmetic"
    )
    fill = w.line("fill", "V / room", f"{volume:.2f} / {q.space_l:g}", volume / q.space_l, "share", "arithmetic")
    mass = w.line("m", "Σ litres × kg/L", "dry", sum(b.litres * MEDIA_KG_L[b.media] for b in q.baskets), "kg", "memory")
    film = w.line(
        "A",
        "Σ litres × m²/L that water passes",
        "pores it does not pass are left out",
        sum(b.litres * MEDIA_SURFACE_M2_L[b.media] for b in q.baskets),
        "m²",
        "memory",
    )
    asked = w.line(
        "asked",
        "1 or 2 kg per 100 L",
        f"{2 if q.heavy_stock else 1} × {q.net_l:.0f} / 100",
        (2 if q.heavy_stock else 1) * q.net_l / 100,
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
    clean = dirty = service = None
    if q.pump is not None and q.baskets:
        c1 = c2 = 0.0
        for b in q.baskets:
            x, y = media_coefficients(b.media, area, b.litres / 1000 / area, nu)
            c1, c2 = c1 + x, c2 + y
        c2 += minor_coefficient(q.fittings_k, q.hose_bore_mm / 1000)
        flows, heads = np.array([0.0, lph_to_m3s(q.pump.max_flow_lph)]), np.array([q.pump.max_head_m, 0.0])
        hoses = np.array([[q.hose_bore_mm / 1000, q.hose_length_m, 1.5e-6]])
        first = q.baskets[0].media

        def flow(days: float) -> float:
            dirt = dirt_resistance(q.feed_g_day, days, area, first)
            return m3s_to_lph(
                float(
                    meet(
                        flows,
                        heads,
                        q.pump.speed_share if q.pump else 1.0,
                        q.rise_to_open_air_m,
                        c1 + dirt,
                        c2,
                        hoses,
                        nu,
                    )
                )
            )

        clean = w.line("Q", "pump meets plumbing and media", "clean", flow(0), "L/h", "forchheimer")
        low, high = 0.0, 4000.0
        if clean > 0 and flow(high) < SERVICE_SHARE * clean:
            for _ in range(40):
                middle = 0.5 * (low + high)
                low, high = (middle, high) if flow(middle) > SERVICE_SHARE * clean else (low, middle)
            service = w.line(
                "t", "until Q is 70 % of clean", f"first medium {_NAMES[first]}", high, "days", "dirtprior"
            )
        dirty = flow(service if service is not None else 60)
    faults = _faults(q, fill)
    words = ", ".join(_NAMES[b.media] for b in q.baskets)
    if not q.baskets:
        verdict = f"Nothing is in it yet. {PATH_WORDS[q.path]}"
    elif faults:
        verdict = f"{faults[0].what} {faults[0].remedy}"
    else:
        verdict = f"In good order: {words}."
    if clean is not None and service is not None:
        verdict += f" It passes {clean:.0f} L/h clean and wants cleaning after about {service:.0f} days."
    return MediaStackAnswer(
        verdict=verdict,
        working=w.lines,
        path_words=PATH_WORDS[q.path],
        faults=faults,
        advice=_advice(q),
        volume_l=volume,
        fill_share=fill,
        mass_kg=mass,
        film_m2=film,
        asked_kg=asked,
        has_kg=has,
        clean_lph=clean,
        dirty_lph=dirty,
        service_day=service,
    )
