"""One sump under several tanks: flow of each, the run-back of all, and the shared water."""

import math
from typing import Annotated

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.contract import (
    Answer,
    Litres,
    Lph,
    Name,
    NetLitres,
    Part,
    Question,
    Share,
    Working,
    computation,
    number,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.flow.hydraulic_kernel import plumbing_head
from reedmace.core.flow.materials import FITTING_K, viscosity_m2_s
from reedmace.core.flow.operating_point import minor_coefficient
from reedmace.core.flow.overflow import DRAIN_SHARE, PIPE_L, run_back_l, siphon_m3s
from reedmace.core.quantity import formatting
from reedmace.core.root_finding import root_between

Floats = NDArray[np.float64]
ROUGHNESS_M = 1.5e-6
TAP_OPEN_K = FITTING_K["tap-open"]
MIXED_SHARE = 0.95
"""Share that must have left the slowest tank before a dose counts as spread (a stated judgement)."""


class SharedTank(Part):
    """One tank on the sump: its volume, the height of its return, its branch, its overflow."""

    key: Name
    name: Name
    net_l: NetLitres
    surface_cm2: Annotated[float, number("cm²", 50, 1e6)]
    lift_cm: Annotated[float, number("cm", 0, 1000, "Its return over the sump's water")]
    bore_mm: Annotated[float, number("mm", 4, 110, "Of its branch")] = 16
    length_m: Annotated[float, number("m", 0.1, 100, "Of its branch")] = 2
    tap_share: Annotated[float, number("share", 0.02, 1, "How far its own tap is open")] = 1
    return_below_surface_cm: Annotated[float, number("cm", 0, 100, "It runs back until air gets in")] = 1
    weir_cm: Annotated[float, number("cm", 2, 500, "Length of edge the water falls over")] = 10
    drain_bore_mm: Annotated[float, number("mm", 8, 110)] = 22
    drain_fall_m: Annotated[float, number("m", 0.1, 10, "From its overflow to the sump's water")] = 0.8
    load_mg_n_day: Annotated[float, number("mg N/day", 0, 1e7, "What its animals make")] = 0
    quarantined: bool = False


class SharedSumpQuestion(Question):
    """A return pump, the sump, and the tanks on it."""

    pump_lph: Annotated[float, number("L/h", 50, 1e5, "With nothing to lift")]
    pump_head_m: Annotated[float, number("m", 0.1, 50, "At which it gives up")]
    sump_l: Annotated[float, number("L", 1, 1e5, "Water in it while it runs")]
    sump_free_l: Annotated[float, number("L", 0, 1e5, "Room above that")]
    tanks: Annotated[list[SharedTank], Field(min_length=1, max_length=100)]
    film_mg_n_day: (
        Annotated[float, number("mg N/day", 0, 1e8, "What the sump's film carries; left out, not judged")] | None
    ) = None
    temperature_c: Annotated[float, number("°C", 4, 40)] = 25


class SharedFlow(Part):
    """Flow of one tank."""

    key: Name
    name: Name
    flow_lph: Lph
    turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)]
    drain_lph: Lph
    drains: bool
    run_back_l: Litres
    even_tap_share: Share = Field(description="How far to open its tap so that all get the same volumes an hour")


class SharedSumpAnswer(Answer):
    """Flow of each tank, run-back of all, and the shared volume."""

    tanks: list[SharedFlow]
    return_lph: Lph
    run_back_l: Litres
    spare_l: Annotated[float, number("L", -1e6, 1e6, "Free room less run-back; under 0 it floods")]
    holds: bool
    water_l: Litres = Field(description="All of it: a dose and a change are for so much")
    load_mg_n_day: Annotated[float, number("mg N/day", 0, 1e9)]
    carries: bool | None
    mixed_h: Annotated[float, number("h", 0, 1e5, "Until what goes into one tank is even in all")]
    even_turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6, "With the taps set so")]
    water_words: str
    remedies: list[str]
    cautions: list[str]


class _Branches:
    """Parallel branches: the flow of each at a head in the main. Heads in m, flows in m³/s."""

    def __init__(self, q: SharedSumpQuestion) -> None:
        self.nu = viscosity_m2_s(q.temperature_c)
        self.most, self.gives_up = q.pump_lph / 3.6e6, q.pump_head_m
        self.lift = np.array([t.lift_cm / 100 for t in q.tanks])
        self.hoses = [np.array([[t.bore_mm / 1000, t.length_m, ROUGHNESS_M]]) for t in q.tanks]
        self.squares = np.array(
            [minor_coefficient(TAP_OPEN_K / t.tap_share**2 + 1.0, t.bore_mm / 1000) for t in q.tanks]
        )

    def asks(self, i: int, flow: float) -> float:
        """Head of a branch at a flow, m."""
        return float(plumbing_head(flow, self.lift[i], 0.0, self.squares[i], self.hoses[i], self.nu))

    def flow(self, i: int, head: float) -> float:
        """Flow of a branch at a head in the main, m³/s; 0 below its lift."""
        if head <= self.lift[i]:
            return 0.0
        if self.asks(i, self.most) <= head:
            return self.most
        return root_between(lambda flow: self.asks(i, flow) - head, 0.0, self.most, xtol=1e-12)

    def all(self, head: float) -> Floats:
        return np.array([self.flow(i, head) for i in range(len(self.lift))])

    def pump(self, head: float) -> float:
        """Flow of the pump at a head, m³/s: inverse of H = Hmax (1 − (Q/Qmax)²)."""
        return self.most * float(np.sqrt(max(1 - head / self.gives_up, 0.0)))

    def meet(self) -> float:
        """Head in the main at which pump and branches agree, m."""
        low = float(self.lift.min())
        if self.gives_up <= low:
            return low
        return root_between(lambda head: self.pump(head) - self.all(head).sum(), low, self.gives_up, xtol=1e-10)


def _even(q: SharedSumpQuestion, b: _Branches) -> tuple[float, Floats]:
    """(equal turnover of all tanks, opening of each tap for it)."""
    litres = np.array([t.net_l for t in q.tanks])

    def spare(turns: float) -> float:
        flows = turns * litres / 3.6e6
        asked = max(b.asks(i, float(f)) for i, f in enumerate(flows))
        return float(b.gives_up * (1 - (flows.sum() / b.most) ** 2) - asked)

    open_now = b.squares.copy()
    b.squares = np.array([minor_coefficient(TAP_OPEN_K + 1.0, t.bore_mm / 1000) for t in q.tanks])
    most = b.most * 3.6e6 / litres.sum()
    turns = root_between(spare, 0.0, most, xtol=1e-9) if spare(0.0) > 0 else 0.0
    flows = turns * litres / 3.6e6
    head = b.gives_up * (1 - (flows.sum() / b.most) ** 2)
    shares = []
    for i, (t, flow) in enumerate(zip(q.tanks, flows, strict=True)):
        left = head - b.asks(i, float(flow))
        extra = left / flow**2 if flow > 0 else 0.0
        tap = minor_coefficient(TAP_OPEN_K, t.bore_mm / 1000)
        shares.append(float(np.sqrt(tap / (tap + max(extra, 0.0)))))
    b.squares = open_now
    return turns, np.clip(np.array(shares), 0.0, 1.0)


def _row(t: SharedTank, flow_lph: float, tap_share: float, temperature_c: float) -> SharedFlow:
    """One tank on the sump. tap_share: its tap stands open where all are set even."""
    drain = siphon_m3s(t.drain_bore_mm / 1000, t.drain_fall_m + 0.5, t.drain_fall_m, 4.0, temperature_c) * 3.6e6
    return SharedFlow(
        key=t.key,
        name=t.name,
        flow_lph=flow_lph,
        turnovers_per_hour=flow_lph / t.net_l,
        drain_lph=drain,
        drains=DRAIN_SHARE * drain >= flow_lph,
        run_back_l=run_back_l(t.surface_cm2, max(flow_lph, 1.0), t.weir_cm, t.return_below_surface_cm, 0.0),
        even_tap_share=tap_share,
    )


@computation("shared-sump", "One sump under several tanks: flow of each, run-back of all, one water")
def shared_sump(question: SharedSumpQuestion) -> SharedSumpAnswer:
    """Flow of each of several tanks on one return, and whether the sump takes the run-back of all.

    question: L/h, m, cm, mm, L, mg N/day. Raises CannotAnswer where two tanks share a key. Source: Darcy-Weisbach in
    parallel branches from one pump; Francis and geometry for the run-back; taps from Crane TP-410.
    """
    q, w = question, Working()
    if len({t.key for t in q.tanks}) != len(q.tanks):
        raise CannotAnswer("tanks", "two of them share a key.", "Give each its own.")
    b = _Branches(q)
    head = b.meet()
    flows = b.all(head) * 3.6e6
    w.line("H", "pump and branches agree", f"{len(q.tanks)} branches", head, "m", "darcy")
    total = w.line("Q", "Σ branches", " + ".join(f"{f:.0f}" for f in flows), float(flows.sum()), "L/h", "darcy")
    turns, opens = _even(q, b)
    rows = [
        _row(t, float(flow), float(share), q.temperature_c)
        for t, flow, share in zip(q.tanks, flows, opens, strict=True)
    ]
    back = w.line(
        "V",
        "Σ surface × fall / 1000 + pipes",
        f"{len(rows)} tanks + {PIPE_L:g}",
        sum(r.run_back_l for r in rows) + PIPE_L,
        "L",
        "francis",
    )
    spare = w.sum("left", "free room − V", {"free room": q.sump_free_l, "V": back}, "L", "arithmetic")
    water = w.sum(
        "water", "tanks + sump", {"tanks": sum(t.net_l for t in q.tanks), "sump": q.sump_l}, "L", "arithmetic"
    )
    load = w.line(
        "load",
        "Σ what the animals make",
        f"{len(rows)} tanks",
        sum(t.load_mg_n_day for t in q.tanks),
        "mg N/day",
        "timmons",
    )
    carries = None if q.film_mg_n_day is None else q.film_mg_n_day >= load
    slowest = min((r.turnovers_per_hour for r in rows), default=0.0)
    mixed = math.log(1 / (1 - MIXED_SHARE)) / slowest if slowest > 1e-6 else 1e5
    return SharedSumpAnswer(
        verdict=_verdict(rows, spare, back, carries),
        working=w.lines,
        tanks=rows,
        return_lph=total,
        run_back_l=back,
        spare_l=spare,
        holds=spare >= 0,
        water_l=water,
        load_mg_n_day=load,
        carries=carries,
        mixed_h=min(mixed, 1e5),
        water_words=_water_words(water, mixed),
        even_turnovers_per_hour=turns,
        remedies=_remedies(rows, spare, turns, carries),
        cautions=_cautions(q, water),
    )


def _named(rows: list[str]) -> str:
    return rows[0] if len(rows) == 1 else f"{', '.join(rows[:3])}{' and others' if len(rows) > 3 else ''}"


NEVER_MIXED_H = 720.0
"""Hours beyond which tanks do not share their water in practice (a stated judgement)."""


def _water_words(water_l: float, mixed_h: float) -> str:
    water = f"{formatting.litres(water_l)} of water in one"
    if mixed_h > NEVER_MIXED_H:
        return f"{water}."
    hours = max(round(mixed_h), 1)
    short = "an hour" if hours == 1 else f"{hours} hours"
    after = short if mixed_h < 48 else f"{mixed_h / 24:.0f} days"
    return f"{water}; what goes into one tank is even in all after about {after}."


def _verdict(rows: list[SharedFlow], spare: float, back: float, carries: bool | None) -> str:
    dry = [r.name for r in rows if r.flow_lph < 1]
    over = [r.name for r in rows if not r.drains]
    if spare < 0:
        return (
            f"It floods at a power cut: all tanks together send {formatting.litres(back)} back,"
            f" {formatting.litres(-spare)} more than the sump takes."
        )
    if dry:
        return f"Nothing reaches {_named(dry)}: the pump does not lift so high with the others open."
    if over:
        return f"The drain of {_named(over)} cannot take its return."
    if carries is False:
        return "The sump's film is too little for what all the animals make."
    least, most = (f([r.turnovers_per_hour for r in rows]) for f in (min, max))
    turns = f"{least:.1f}" if most - least < 0.05 else f"{least:.1f} to {most:.1f}"
    return (
        f"It holds: {turns} volumes an hour in each, and a power cut sends {formatting.litres(back)} back into room for"
        f" {formatting.litres(back + spare)}."
    )


def _remedies(rows: list[SharedFlow], spare: float, turns: float, carries: bool | None) -> list[str]:
    found = []
    if spare < 0:
        found.append(
            "A siphon break nearer the surface in each tank, or the sump's running level lower by"
            f" {formatting.litres(-spare)}."
        )
    if any(not r.drains for r in rows):
        found.append("A wider drain where it is named, or that tank's tap turned down.")
    uneven = max(r.turnovers_per_hour for r in rows) > 1.3 * max(min(r.turnovers_per_hour for r in rows), 1e-9)
    if uneven and turns > 0:
        found.append(f"Set the taps as shown, and each tank gets {turns:.1f} volumes an hour.")
    if turns == 0:
        found.append("A pump that lifts higher, or the highest tank on one of its own.")
    if carries is False:
        found.append("More media in the sump, or fewer animals.")
    return found


def _cautions(q: SharedSumpQuestion, water: float) -> list[str]:
    found = [
        "One water: what one tank catches, all have. New animals wait elsewhere, with their own net and bucket.",
        (
            f"A dose, a medicine and a change are for all {formatting.litres(water)}; copper or salt for one tank"
            " reaches every shrimp in the others."
        ),
    ]
    shut_in = [t.name for t in q.tanks if t.quarantined]
    if shut_in:
        found.insert(
            0, f"{_named(shut_in)} is in quarantine and must not share this water: close its return and its drain."
        )
    return found
