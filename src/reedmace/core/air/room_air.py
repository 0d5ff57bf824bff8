"""Air for a fish room: the air and water flow of every outlet on a shared main with one or more pumps."""

import math
from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.air.network import Network, Solved, drop_pa, solve
from reedmace.core.air.plan import (
    L_MIN,
    L_MIN_PER_W,
    LEAST_OPEN,
    MORE_THAN_ESTIMATED,
    NEVER_PA,
    TAP_PA,
    RoomAirQuestion,
    RoomOutlet,
    is_estimated,
    network_of,
    outlet_line,
    pump_figures,
)
from reedmace.core.air.room_air_words import (
    BLEED_SHARE,
    BLOCKED_SHARE,
    PUMP_DB,
    TIME_A_LINE,
    OutletAir,
    PumpAir,
    air_notes,
    air_remedies,
    air_verdict,
    not_told,
)
from reedmace.core.contract import Answer, Name, Working, computation, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.flow.airlift import MINOR_K
from reedmace.core.flow.airlift_kernel import airlift
from reedmace.core.flow.materials import media_coefficients, viscosity_m2_s
from reedmace.core.quantity import m3s_to_lph

Floats = NDArray[np.float64]


class RoomAirAnswer(Answer):
    """Air of every outlet, working points of the pumps, and the margin for one more outlet."""

    outlets: list[OutletAir]
    pumps: list[PumpAir]
    air_l_min: Annotated[float, number("L/min", 0, 16000)]
    weakest: Name
    carries: bool
    told: bool = Field(description="False where a pump is known by its watts or outlets alone and may carry them all")
    fair_share: Annotated[float, number("share", 0, 1, "Of what each wants, with the valves balanced")]
    bleed_l_min: Annotated[
        float, number("L/min", 0, 16000, "To let off, so that no valve must hold back more than it can")
    ]
    one_more_share: Annotated[
        float, number("share", 0, 1e5, "Least any keeps of its air with one more like the weakest")
    ]
    more_count: Annotated[int, whole(0, 200, "More like the hungriest that it carries, valves balanced")]
    noise_db: Annotated[float, number("dB", 0, 140, "All pumps together, at a metre")]
    assumed: list[str]
    remedies: list[str]
    notes: list[str] = Field(description="Sound, reserve, what may be let off and what a failure leaves")


@computation("room-air", "What every outlet of a room gets from its air pumps through the main")
def room_air(question: RoomAirQuestion) -> RoomAirAnswer:
    """Air and water of each outlet on the main of a fish room.

    question: L/min, kPa, W, bores in mm, lengths in m, depths in cm. Pumps are taken straight between their two
    figures. Raises CannotAnswer where a node hangs on no pump or nothing balances. Source: Darcy-Weisbach;
    hydrostatics; Nicklin 1963 for the water; valves, stones and pumps known by watts from memory.
    """
    q, w = question, Working()
    assumed: list[str] = []
    figures = [pump_figures(p, assumed) for p in q.pumps]
    net, _ = network_of(q, figures)
    got = _solved(net)
    wanted = np.array([o.wanted_l_min for o in q.outlets])
    air = got.outlets / L_MIN
    fair, opens, bleed = _balanced(q, net, figures)
    least = int(np.argmin(air / wanted))
    weakest = q.outlets[least]
    total = w.line("Q", "Σ air of the outlets", f"{len(q.outlets)} outlets", float(air.sum()), "L/min", "arithmetic")
    _write_pumps(q, net, got, figures, w)
    against = "depth + check valve + stone + line + valve + main"
    w.line("p", against, weakest.name, float(got.pressure[net.at[least]]) / 1000, "kPa", "darcy")
    fair = w.line(
        "fair",
        "largest share of what each wants that every valve can be set to",
        f"{len(q.outlets)} valves",
        fair,
        "share",
        "darcy",
    )
    outlets = _outlets(q, net, got, opens)
    pumps = _pumps(q, net, got, figures)
    noise = 10 * math.log10(sum(10 ** (p.noise_db / 10) for p in pumps))
    w.line("L", "10 log Σ 10^(L/10)", f"{len(pumps)} pump{'s' if len(pumps) > 1 else ''}", noise, "dB", "memory")
    more = _more(q, figures)
    one_more = _with_more(q, figures, weakest, 1, wanted)
    carries = fair >= 1 - 1e-9
    told = carries or not _may_carry(q, figures)
    return RoomAirAnswer(
        verdict=air_verdict(outlets, pumps, carries, fair, more) if told else not_told(q, fair),
        working=w.lines,
        outlets=outlets,
        pumps=pumps,
        air_l_min=total,
        weakest=weakest.key,
        carries=carries,
        told=told,
        fair_share=min(fair, 1.0),
        bleed_l_min=bleed,
        one_more_share=one_more,
        more_count=more,
        noise_db=noise,
        assumed=assumed,
        remedies=air_remedies(q, outlets, carries, fair) if told else [TIME_A_LINE],
        notes=air_notes(pumps, noise, one_more, bleed if bleed > BLEED_SHARE * total else 0.0),
    )


def _may_carry(q: RoomAirQuestion, figures: list[tuple[float, float]]) -> bool:
    """Whether the pumps would carry all outlets if those estimated gave the most such pumps do."""
    if not any(is_estimated(p) for p in q.pumps):
        return False
    most = [
        (free * MORE_THAN_ESTIMATED if is_estimated(p) else free, kpa)
        for p, (free, kpa) in zip(q.pumps, figures, strict=True)
    ]
    net, _ = network_of(q, most)
    return _balanced(q, net, most)[0] >= 1 - 1e-9


def _write_pumps(q: RoomAirQuestion, net: Network, got: Solved, figures: list[tuple[float, float]], w: Working) -> None:
    """A line for each pump. figures: free flow in L/min and greatest pressure in kPa of each."""
    for k, (p, (free, kpa)) in enumerate(zip(q.pumps, figures, strict=True)):
        at = float(got.pressure[net.pump_at[k]]) / 1000
        w.line(
            f"Q {p.name}",
            "free flow × (1 − p / p max)",
            f"{free:.3g} × (1 − {at:.2f} / {kpa:g})",
            float(got.pumps[k]) / L_MIN,
            "L/min",
            "pumpcurve",
        )


def _outlets(q: RoomAirQuestion, net: Network, got: Solved, opens: Floats) -> list[OutletAir]:
    """What each outlet gets. opens: share its valve stands open where all are set fairly (n,)."""
    air = got.outlets / L_MIN
    return [
        OutletAir(
            key=o.key,
            name=o.name,
            air_l_min=float(air[i]),
            wanted_l_min=o.wanted_l_min,
            got_share=float(air[i]) / o.wanted_l_min,
            water_lph=_water_lph(o, float(got.outlets[i]), q.temperature_c),
            node_kpa=float(got.pressure[net.at[i]]) / 1000,
            balanced_open_share=float(opens[i]),
            blocked=o.seen in ("weak", "none") and float(air[i]) / o.wanted_l_min >= BLOCKED_SHARE,
        )
        for i, o in enumerate(q.outlets)
    ]


def _pumps(q: RoomAirQuestion, net: Network, got: Solved, figures: list[tuple[float, float]]) -> list[PumpAir]:
    """What each pump gives, and what is left without it. figures: free flow in L/min and greatest pressure in kPa."""
    wanted = np.array([o.wanted_l_min for o in q.outlets])
    return [
        PumpAir(
            key=p.key,
            name=p.name,
            l_min=float(got.pumps[k]) / L_MIN,
            kpa=max(float(got.pressure[net.pump_at[k]]) / 1000, 0.0),
            without_share=_without(net, k, wanted),
            noise_db=max(PUMP_DB + 10 * math.log10(p.watts or figures[k][0] / L_MIN_PER_W), 0.0),
        )
        for k, p in enumerate(q.pumps)
    ]


def _solved(net: Network, given: Floats | None = None) -> Solved:
    got = solve(net, given)
    if not got.found:
        raise CannotAnswer(
            "mains", f"the air does not balance: {got.message}.", "Look for a bore or a length that is out by far."
        )
    return got


def _water_lph(o: RoomOutlet, air_m3s: float, temperature_c: float) -> float | None:
    if o.tube_bore_mm is None:
        return None
    nu = viscosity_m2_s(temperature_c)
    c1, _ = media_coefficients("foam-20", o.foam_face_cm2 / 1e4, o.foam_depth_cm / 100, nu)
    return m3s_to_lph(float(airlift(air_m3s, o.tube_bore_mm / 1000, o.depth_cm / 100, 0.0, c1, MINOR_K, nu)))


def _shut(net: Network) -> Network:
    lines = net.lines.copy()
    lines[:, 0] = NEVER_PA
    return Network(net.nodes, net.ends, net.pipes, net.at, lines, net.pump_at, net.pumps)


def _held(net: Network, shut: Network, flows: Floats) -> tuple[Floats, Floats]:
    """Pressure drops of the outlets' valves and pressures of the pumps, Pa, for exactly these flows."""
    given = np.zeros(net.nodes)
    np.add.at(given, net.at, flows)
    got = solve(shut, given)
    rest = np.array(
        [line[0] + drop_pa(flow, line[1], line[2], 0.0) for line, flow in zip(net.lines, flows, strict=True)]
    )
    return got.pressure[net.at] - rest, got.pressure[net.pump_at]


def _balanced(q: RoomAirQuestion, net: Network, figures: list[tuple[float, float]]) -> tuple[float, Floats, float]:
    """(largest share all outlets can have at once, at most 1; valve opening of each; L/min to bleed off)."""
    opened = net.lines.copy()
    # A shut valve counts as one that may be opened.
    opened[:, 0] = [outlet_line(o.model_copy(update={"open_share": 1.0}))[0] for o in q.outlets]
    free = Network(net.nodes, net.ends, net.pipes, net.at, opened, net.pump_at, net.pumps)
    shut, wanted = _shut(free), np.array([o.wanted_l_min for o in q.outlets]) * L_MIN

    def able(share: float) -> bool:
        held, _ = _held(free, shut, wanted * share)
        return bool((held >= TAP_PA * (wanted * share) ** 2).all())

    low, high = (1.0, 1.0) if able(1.0) else (0.0, 1.0)
    while high - low > 1e-6:
        middle = (low + high) / 2
        low, high = (middle, high) if able(middle) else (low, middle)
    flows = wanted * low
    held, _ = _held(free, shut, flows)
    opens = np.clip(np.sqrt(TAP_PA * flows**2 / np.maximum(held, 1e-9)), LEAST_OPEN, 1.0)
    # Pressure beyond what the least closed valve needs is surplus; air is bled off until it is gone.
    spare = float((held - TAP_PA * flows**2).min()) if low >= 1 else 0.0
    bleed = sum(rate * spare / (kpa * 1000) for rate, kpa in figures) if spare > 0 else 0.0
    return low, opens, bleed


def _without(net: Network, k: int, wanted: Floats) -> float:
    """Smallest share of its air any outlet keeps when pump `k` fails; its check valve holds."""
    if len(net.pumps) == 1:
        return 0.0
    rest = np.arange(len(net.pumps)) != k
    less = Network(net.nodes, net.ends, net.pipes, net.at, net.lines, net.pump_at[rest], net.pumps[rest])
    return float((_solved(less).outlets / L_MIN / wanted).min())


def _with_more(
    q: RoomAirQuestion, figures: list[tuple[float, float]], like: RoomOutlet, count: int, wanted: Floats
) -> float:
    """Smallest share any present outlet keeps when a number of extra outlets is added beside one of them."""
    more = [like.model_copy(update={"key": f"one more {n}", "open_share": 1.0}) for n in range(count)]
    net, _ = network_of(q.model_copy(update={"outlets": [*q.outlets, *more]}), figures)
    return float((_solved(net).outlets[: len(wanted)] / L_MIN / wanted).min())


def _more(q: RoomAirQuestion, figures: list[tuple[float, float]]) -> int:
    """How many more of the most demanding outlet the network carries with its valves balanced."""
    like = max(q.outlets, key=lambda o: o.wanted_l_min * (o.depth_cm + 10))

    def able(count: int) -> bool:
        more = [like.model_copy(update={"key": f"one more {n}"}) for n in range(count)]
        bigger = q.model_copy(update={"outlets": [*q.outlets, *more]})
        net, _ = network_of(bigger, figures)
        return _balanced(bigger, net, figures)[0] >= 1

    low, high = 0, 1
    if not able(0):
        return 0
    while high <= 128 and able(high):
        low, high = high, high * 2
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if able(middle) else (low, middle)
    return min(low, 200)
