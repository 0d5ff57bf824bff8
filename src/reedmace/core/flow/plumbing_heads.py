"""Head at every point of a plumbing in three states, and the range of its flow."""

from collections import Counter
from typing import Annotated, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.contract import Answer, Lph, Part, Share, Working, computation, number
from reedmace.core.flow.hydraulic_kernel import hose_head, operating_flow, operating_flows, pump_head, set_threads
from reedmace.core.flow.materials import (
    FLOW_SPREAD,
    MEDIA_NAMES,
    FittingKind,
    media_coefficients,
    viscosity_m2_s,
)
from reedmace.core.flow.operating_point import PART_NAMES, dirt_of, hose_words, minor_coefficient, path_arrays
from reedmace.core.flow.operating_point_schemas import Fitting, Hose, Layer, OperatingPointQuestion
from reedmace.core.quantity import formatting, m3s_to_lph

Floats = NDArray[np.float64]
STRAINS: tuple[FittingKind, ...] = ("strainer", "guard", "entrance")
"""Fittings at the mouth of the intake."""
FIRST_MEDIA = "after-media-1"
"""Node behind the layer that catches the dirt."""
LINK_BORE_MM = 16.0
"""Bore of a fitting without a hose to take one from."""
PlumbingState = Literal["clean", "serviced", "dirty"]
DIRT_SHARE: dict[PlumbingState, float] = {"clean": 0.0, "serviced": 0.5, "dirty": 1.0}
"""Share of the dirt in each state: a service of half the media leaves half (common practice)."""
BOX_HEAD_SPREAD = 0.10
"""Log spread of the head at which a make really stops over what its box says (memory)."""
FITTING_SPREAD, MEDIA_SPREAD, DIRT_SPREAD = 0.15, 0.3, 0.5
"""Log spreads of the resistances of fittings, clean media and dirt from their tables (memory)."""
SLIMED_MM = 0.15
"""Roughness of a hose grown with slime, mm; one in use lies anywhere between this and its own (memory)."""
DRAWS, SEED = 400, 1
NAMED_SHARE = 0.05
"""Least share of the range that is worth naming (a stated judgement)."""
LOW_PERCENTILE, HIGH_PERCENTILE = 5.0, 95.0


class HeadNode(Part):
    """Total head over the tank's water line behind one part, in three states."""

    name: str = Field(description="As the node of the same point is called in the EPANET file")
    part: str
    clean_m: Annotated[float, number("m", -1e4, 1e4)]
    serviced_m: Annotated[float, number("m", -1e4, 1e4, "With the dirt that a service leaves")]
    dirty_m: Annotated[float, number("m", -1e4, 1e4)]


class FlowRange(Part):
    """A flow and the range nine in ten such plumbings have."""

    lph: Lph
    low_lph: Lph
    high_lph: Lph


class DoubtPart(Part):
    """Share of a range's variance that comes from one cause alone."""

    cause: str
    share: Share


class PlumbingHeadsAnswer(Answer):
    """Heads along the way of the water, flows with their ranges, and what makes the range wide."""

    nodes: list[HeadNode]
    clean: FlowRange
    serviced: FlowRange
    dirty: FlowRange
    mostly: list[DoubtPart] = Field(description="Of the flow when dirty, the largest first")
    why: str = Field(description="The causes worth naming, in words")


class PlumbingLink(NamedTuple):
    """One part of the way: the node behind it, its words, and what it takes: c1 Q + c2 Q², or a hose's friction.

    c1 in s/m², c2 in s²/m⁵; bore_mm: of a fitting or hose; intake: whether the water meets it before the pump.
    """

    node: str
    part: str
    of: Fitting | Hose | Layer
    intake: bool
    bore_mm: float = LINK_BORE_MM
    c1: float = 0.0
    c2: float = 0.0


def plumbing_links(question: OperatingPointQuestion) -> list[PlumbingLink]:
    """Parts in the order the water meets them, as in the table and the exported file.

    question: as for operating-point. What strains comes first, then intake hoses, media, the pump, return hoses and all
    other fittings. Nodes are called after the part they stand behind, numbered where there are several.
    """
    fittings = _fitting_links(question)
    hoses = _hose_links(question)
    before = [
        *(link for link in fittings if link.intake),
        *(link for link in hoses if link.intake),
        *_media_links(question),
    ]
    return _numbered([*before, *(link for link in (*hoses, *fittings) if not link.intake)])


def _numbered(links: list[PlumbingLink]) -> list[PlumbingLink]:
    """The links with each node's name told apart."""
    of_name, count = Counter(link.node for link in links), Counter[str]()
    found = []
    for link in links:
        count[link.node] += 1
        several = of_name[link.node] > 1 or isinstance(link.of, Layer)
        found.append(link._replace(node=f"{link.node}-{count[link.node]}") if several else link)
    return found


def _fitting_links(q: OperatingPointQuestion) -> list[PlumbingLink]:
    default = min((h.bore_mm for h in q.hoses), default=LINK_BORE_MM)
    links = []
    for fitting in q.fittings:
        bore, words = fitting.bore_mm or default, PART_NAMES[fitting.kind]
        part = words if fitting.count == 1 else f"{fitting.count} {words}"
        c2 = minor_coefficient(fitting.k_on(bore) * fitting.count, bore / 1000)
        links.append(PlumbingLink(f"after-{fitting.kind}", part, fitting, fitting.kind in STRAINS, bore, c2=c2))
    return links


def _hose_links(q: OperatingPointQuestion) -> list[PlumbingLink]:
    links = []
    for hose in q.hoses:
        for share, name, intake in (
            (hose.intake_share, "intake-hose", True),
            (1 - hose.intake_share, "return-hose" if hose.intake_share else "hose", False),
        ):
            if share > 0:
                piece = hose.model_copy(update={"length_m": share * hose.length_m})
                part = f"{name.partition('-')[0]}: {hose_words(piece)}" if hose.intake_share else hose_words(piece)
                links.append(PlumbingLink(f"after-{name}", part, piece, intake, hose.bore_mm))
    return links


def _media_links(q: OperatingPointQuestion) -> list[PlumbingLink]:
    nu, links = viscosity_m2_s(q.temperature_c), []
    for layer in q.media:
        c1, c2 = media_coefficients(layer.media, layer.area_cm2 / 1e4, layer.depth_cm / 100, nu)
        links.append(PlumbingLink("after-media", MEDIA_NAMES[layer.media], layer, intake=True, c1=c1, c2=c2))
    return links


def _heads(links: list[PlumbingLink], pump_m: float, flow_m3s: float, dirt: float, nu_m2_s: float) -> list[float]:
    """Head behind each part and behind the pump, from the tank on, m. pump_m: its head; dirt: in s/m²."""
    heads, lifted = [0.0], False
    for link in links:
        if not link.intake and not lifted:
            heads.append(heads[-1] + pump_m)
            lifted = True
        if isinstance(link.of, Hose):
            sizes = (link.of.bore_mm / 1000, link.of.length_m, link.of.roughness_mm / 1000)
            lost = float(hose_head(flow_m3s, *sizes, nu_m2_s))
        else:
            lost = link.c1 * flow_m3s + link.c2 * flow_m3s**2
        if link.node == FIRST_MEDIA:
            lost += dirt * flow_m3s
        heads.append(heads[-1] - lost)
    return heads if lifted else [*heads, heads[-1] + pump_m]


class _Draws(NamedTuple):
    """Log deviations of n plumbings, and slime: where a hose's roughness lies between its own, 0, and slimed, 1."""

    flow: Floats
    head: Floats
    fittings: Floats
    media: Floats
    dirt: Floats
    slime: Floats


CAUSES = {
    "flow": "what the pump really moves",
    "head": "how high the pump really lifts",
    "fittings": "fittings",
    "media": "the media as packed",
    "dirt": "how much dirt there is",
    "slime": "slime in the hoses",
}


def drawn(rng: np.random.Generator, n: int) -> _Draws:
    """Deviations of n plumbings that look alike. rng: random numbers; n: how many."""
    flow, head, fittings, media, dirt = (
        spread * rng.standard_normal(n)
        for spread in (FLOW_SPREAD, BOX_HEAD_SPREAD, FITTING_SPREAD, MEDIA_SPREAD, DIRT_SPREAD)
    )
    return _Draws(flow, head, fittings, media, dirt, slime=rng.uniform(size=n))


def _flows(q: OperatingPointQuestion, draws: _Draws, dirt: float) -> Floats:
    """Flow of each drawn plumbing, L/h (n,). dirt: in s/m², of the tables."""
    n = len(draws.flow)
    set_threads(n)
    flows, heads, speed, static, _c1, _c2, hoses, nu = path_arrays(q)
    links = plumbing_links(q)
    media1 = sum(link.c1 for link in links)
    media2 = sum(link.c2 for link in links if isinstance(link.of, Layer))
    fitting2 = sum(link.c2 for link in links if isinstance(link.of, Fitting))
    many = np.repeat(hoses[None], n, axis=0)
    if many.shape[1]:
        own = np.maximum(many[:, :, 2], 1e-7)
        many[:, :, 2] = own * (np.maximum(SLIMED_MM / 1000, own) / own) ** draws.slime[:, None]
    media = np.exp(draws.media)
    found = operating_flows(
        flows[None] * speed * np.exp(draws.flow)[:, None],
        heads[None] * speed**2 * np.exp(draws.head)[:, None],
        np.full(n, len(flows)),
        np.full(n, static),
        media1 * media + dirt * np.exp(draws.dirt),
        media2 * media + fitting2 * np.exp(draws.fittings),
        many,
        nu,
    )
    return np.asarray(found) * 3.6e6


def _only(draws: _Draws, cause: str) -> _Draws:
    """The draws with nothing but one cause varied; a hose half way to slimed. cause: a field of the draws."""
    still = {name: np.full_like(getattr(draws, name), 0.5 if name == "slime" else 0.0) for name in draws._fields}
    return _Draws(**{**still, cause: getattr(draws, cause)})


def _range(lph: float, flows: Floats) -> FlowRange:
    """A flow and its range, L/h. flows: drawn (n,)."""
    low, high = (float(x) for x in np.percentile(flows, [LOW_PERCENTILE, HIGH_PERCENTILE]))
    return FlowRange(lph=lph, low_lph=min(low, lph), high_lph=max(high, lph))


def _mostly(q: OperatingPointQuestion, draws: _Draws, dirt: float) -> list[DoubtPart]:
    """Causes of the range by their share of the variance, each varied alone; none where nothing varies."""
    variances = {cause: float(np.var(_flows(q, _only(draws, cause), dirt))) for cause in draws._fields}
    total = sum(variances.values())
    if total <= 0:
        return []
    parts = [DoubtPart(cause=CAUSES[cause], share=value / total) for cause, value in variances.items()]
    return sorted(parts, key=lambda part: -part.share)


@computation("plumbing-heads", "Heads along the way of the water, and what the flow is worth")
def plumbing_heads(question: OperatingPointQuestion) -> PlumbingHeadsAnswer:
    """Head behind every part clean, serviced and dirty, and the range of each flow by Monte Carlo.

    question: as for operating-point, which raises the same. A pump that cannot reach the outlet has no flow, and its
    own head behind it. The range: 5th to 95th of 400 plumbings whose pump, media, dirt, fittings and slime differ as
    such things do. Source: as operating-point; affinity laws; the spreads are memory.
    """
    q, w = question, Working()
    nu = viscosity_m2_s(q.temperature_c)
    flows, heads, speed, static, c1, c2, hoses, _nu = path_arrays(q)
    dirt = dirt_of(q)
    links, states = plumbing_links(q), [share * dirt for share in DIRT_SHARE.values()]
    found = [float(operating_flow(flows, heads, speed, static, c1 + r, c2, hoses, nu)) for r in states]
    columns = [
        _heads(links, float(pump_head(flow, flows, heads, speed)), flow, r, nu)
        for flow, r in zip(found, states, strict=True)
    ]
    nodes = [
        HeadNode(name=name, part=part, clean_m=clean_m, serviced_m=serviced_m, dirty_m=dirty_m)
        for (name, part), clean_m, serviced_m, dirty_m in zip(_node_names(links), *columns, strict=True)
    ]
    draws = drawn(np.random.default_rng(SEED), DRAWS)
    ranges = [_range(m3s_to_lph(flow), _flows(q, draws, r)) for flow, r in zip(found, states, strict=True)]
    for state, one in zip(DIRT_SHARE, ranges, strict=True):
        w.line(
            f"Q {state}",
            f"5th and 95th of {DRAWS} plumbings",
            f"{one.low_lph:.0f} to {one.high_lph:.0f} L/h",
            one.lph,
            "L/h",
            "memory",
        )
    clean, serviced, dirty = ranges
    mostly = _mostly(q, draws, dirt)
    return PlumbingHeadsAnswer(
        verdict=_verdict(clean, dirty),
        working=w.lines,
        nodes=nodes,
        clean=clean,
        serviced=serviced,
        dirty=dirty,
        mostly=mostly,
        why=_why(mostly),
    )


def _node_names(links: list[PlumbingLink]) -> list[tuple[str, str]]:
    """Name and words of each node in order: the tank, each part's, and the pump's between intake and return."""
    names = {intake: [(link.node, link.part) for link in links if link.intake is intake] for intake in (True, False)}
    return [("tank", "tank"), *names[True], ("after-pump", "pump"), *names[False]]


def _verdict(clean: FlowRange, dirty: FlowRange) -> str:
    """What the flow is worth, in a sentence."""
    if clean.high_lph < 1:
        return "No flow: the pump does not reach the outlet."
    return (
        f"Nine in ten such filters move {formatting.lph.bare(clean.low_lph)} to {formatting.lph(clean.high_lph)} clean"
        f" and {formatting.lph.bare(dirty.low_lph)} to {formatting.lph(dirty.high_lph)} when due for cleaning."
    )


def _why(mostly: list[DoubtPart]) -> str:
    """Where the range comes from, and what ends it."""
    named = [f"{part.cause} {part.share:.0%}" for part in mostly if part.share >= NAMED_SHARE]
    return f"Of that range: {', '.join(named)}. A timed flow ends most of it." if named else ""
