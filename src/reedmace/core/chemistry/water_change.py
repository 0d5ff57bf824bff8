"""One water change that brings every solute to its target without a shock to the animals."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.salinity import has_salt
from reedmace.core.chemistry.shock_limits import PH_SHIFT_ANIMALS, PH_SHIFT_EMPTY, Bounds, Water, largest_change
from reedmace.core.chemistry.tolerance import (
    UNTESTED_KH_DKH,
    UNTESTED_PH,
    UNTESTED_TAP_KH_DKH,
    UNTESTED_TAP_PH,
)
from reedmace.core.contract import (
    PH,
    Answer,
    Litres,
    MgNPerL,
    NetLitres,
    Part,
    Question,
    Share,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import formatting

MOST_PARTS, PART_H = 8, 3.0
"""Most parts a change is split into, and the hours between them (common practice)."""
SALT_MIX_PER_SALT = 38 / 35
"""Grams of sea-salt mix a litre takes for each g/kg: mixes hold some water (common practice)."""


@dataclass(frozen=True)
class Pouring:
    """How new water is prepared: temperature, treatment, salt."""

    tank_c: float
    cold_c: float
    hot_c: float
    salinity_g_kg: float = 0.0
    chlorine: str = "unknown"
    conditioner_ml_per_100l: float = 0.0
    measured: bool = True
    """Whether anybody read or chose the tank's temperature."""

    def mixable(self) -> bool:
        """Whether hot and cold tap water can be mixed to the tank's temperature."""
        return self.cold_c <= self.tank_c <= self.hot_c

    def hot_share(self) -> float:
        """Share of hot tap water, 0 to 1."""
        return min(max((self.tank_c - self.cold_c) / (self.hot_c - self.cold_c), 0.0), 1.0)

    def words(self, litres: float, *, known: bool) -> str:
        """Sentence on what is poured in: hot and cold, salt, treatment.

        litres: of one portion; known: whether litres may be stated.
        """
        hot = litres * self.hot_share()
        if not self.measured:
            mix = "mixed to the tank's own warmth, with a thermometer in both"
        elif not self.mixable():
            colder = self.tank_c < self.cold_c
            mix = (
                f"the tap gives no water of {formatting.celsius(self.tank_c)}: let it stand"
                f" {'cold' if colder else 'with a heater'} until it is"
            )
        elif known and litres >= 1:
            mix = (
                f"{formatting.litres(round(hot))} hot with {formatting.litres(round(litres) - round(hot))} cold to"
                f" match {formatting.celsius(self.tank_c)}"
            )
        else:
            mix = f"mixed to match {formatting.celsius(self.tank_c)}"
        said = [mix]
        if has_salt(self.salinity_g_kg):
            grams = self.salinity_g_kg * SALT_MIX_PER_SALT * litres
            said.append(f"salted to {self.salinity_g_kg:g} g/kg" + (f" ({grams:.0f} g of sea salt)" if known else ""))
        if self.chlorine != "none":
            ml = litres * self.conditioner_ml_per_100l / 100
            said.append("treated for chlorine" + (f" ({ml:.1f} mL of conditioner)" if ml and known else ""))
        return f"{', '.join(said)}."


class Solute(Part):
    """One solute: its concentration now, in the tap, and the target, all in the keeper's unit."""

    what: Literal["ammonia", "nitrite", "nitrate", "other"]
    now_ppm: Annotated[float, number("ppm", 0, 1e5)]
    tap_ppm: Annotated[float, number("ppm", 0, 1e5)] = 0
    target_ppm: Annotated[float, number("ppm", 0, 1e5)]


class WaterChangeQuestion(Question):
    """The water, its solutes, and the temperature of the tap."""

    net_l: NetLitres
    solutes: Annotated[list[Solute], Field(min_length=1, max_length=8)]
    tank_c: Annotated[float, number("°C", 0.5, 40)] = 25
    tap_cold_c: Annotated[float, number("°C", 0, 40)] = 12
    tap_hot_c: Annotated[float, number("°C", 20, 90)] = 55
    tank_ph: PH | None = None
    tank_kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    tap_ph: PH | None = None
    tap_kh_dkh: Annotated[float, number("dKH", 0, 40)] | None = None
    animals_in: bool = True
    conditioner_ml_per_100l: Annotated[float, number("mL/100 L", 0, 1000, "From the conditioner's label")] = 0
    ammonia_mg_n_l: MgNPerL | None = Field(default=None, description="In the tank, for what the tap's pH makes of it")
    tap_ammonia_mg_n_l: MgNPerL = 0
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45, "The tank's: new water is mixed to it")] = 0


class SoluteShare(Part):
    """The share each solute requires on its own, and its concentration after the change."""

    what: Literal["ammonia", "nitrite", "nitrate", "other"]
    asks_share: Share
    after_ppm: Annotated[float, number("ppm", 0, 1e5)]


class WaterChangeAnswer(Answer):
    """Share and litres, the deciding solute, and the number of parts that keeps the pH shift within bounds."""

    change_share: Share
    change_l: Litres
    decided_by: str
    solutes: list[SoluteShare]
    hot_l: Litres
    cold_l: Litres
    conditioner_ml: Annotated[float, number("mL", 0, 1e6)]
    after_ph: Annotated[float, number("pH", 0, 14)] | None
    ph_shift: Annotated[float, number("pH", 0, 10, "Of the largest part")] | None
    parts_count: Annotated[int, whole(1, MOST_PARTS)]
    part_l: Litres
    apart_hours: Annotated[float, number("h", 0, 24, "Between two parts")]
    salt_g: Annotated[float, number("g", 0, 1e7, "Sea-salt mix for the new water")]
    harms: bool = Field(
        description="Even in parts it would lift free ammonia over its limit, or pH too far: do not pour it"
    )


LARGE_SHARE = 0.9
"""Share of the water above which animals are not given it in a day (common practice)."""


def _asked(index: int, s: Solute, w: Working) -> float:
    """Share of the water that one solute asks to be changed. Raises CannotAnswer where the tap is over its target."""
    if s.now_ppm <= s.target_ppm:
        return 0.0
    if (s.tap_ppm >= s.target_ppm and s.target_ppm > 0) or s.tap_ppm > s.target_ppm:
        raise CannotAnswer(
            f"solutes.{index}.target_ppm",
            f"the tap carries {s.tap_ppm:g} ppm of {s.what}, so no change reaches {s.target_ppm:g}.",
            "Raise the target above the tap's own figure or treat the tap water.",
        )
    return w.sum(
        f"x {s.what}",
        "(now − target) / (now − tap)",
        {"now": s.now_ppm, "target": s.target_ppm, "tap": s.tap_ppm},
        "share",
        "arithmetic",
    )


def _part_l(q: WaterChangeQuestion, share: float, parts: int) -> float:
    """Water of one of the parts that together change a share, L."""
    return float(1 - (1 - share) ** (1 / parts)) * q.net_l


def _parts(q: WaterChangeQuestion, share: float, w: Working) -> tuple["_Split", str]:
    """Parts that a change is split into, and what is said of it. share: of the water; w: gets the line."""
    found = _split(q, share) if share > 0 else None
    split = found or _Split(None, None, 1, False)
    words = ""
    if found is None and share > LARGE_SHARE and q.animals_in:
        words = " With animals in, split it over several days."
    if split.shift is not None:
        part_l = _part_l(q, share, split.parts)
        w.line(
            "ΔpH",
            "pH mixed − pH tank, the largest part",
            f"{split.parts} part{'s' if split.parts > 1 else ''} of {part_l:.1f} L",
            split.shift,
            "pH",
            "carbonate",
        )
        words += _split_words(q, split, part_l)
    return split, words


@computation("water-change", "How much to change for every target at once")
def water_change(question: WaterChangeQuestion) -> WaterChangeAnswer:
    """Share of the water to change so that every solute ends at or under its target.

    question: L, ppm, °C. Source: dilution (mass balance of a single change).
    Raises CannotAnswer when the tap itself is over a target, since no change can then reach it.
    """
    q, w = question, Working()
    asks = [_asked(index, s, w) for index, s in enumerate(q.solutes)]
    share = max(asks)
    decided = q.solutes[asks.index(share)].what if share > 0 else "none"
    litres = w.sum("V", "x × net litres", {"x": share, "net litres": q.net_l}, "L", "arithmetic")
    if q.tap_hot_c <= q.tap_cold_c:
        raise CannotAnswer("tap_hot_c", "the hot tap is not warmer than the cold one.", "Swap or correct the two.")
    pouring = Pouring(
        q.tank_c, q.tap_cold_c, q.tap_hot_c, q.salinity_g_kg, conditioner_ml_per_100l=q.conditioner_ml_per_100l
    )
    hot = w.line(
        "Vhot",
        "V × (tank − cold) / (hot − cold)",
        f"{litres:.1f} × ({q.tank_c:g} − {q.tap_cold_c:g}) / ({q.tap_hot_c:g} − {q.tap_cold_c:g})",
        litres * pouring.hot_share(),
        "L",
        "arithmetic",
    )
    salt = litres * q.salinity_g_kg * SALT_MIX_PER_SALT
    if salt:
        w.line("salt", "V × salinity × 38 / 35", f"{litres:.1f} × {q.salinity_g_kg:g} × 38 / 35", salt, "g", "practice")
    verdict = (
        f"Change {formatting.litres(litres)} ({share * 100:.0f} %): {decided} decides it. In all"
        f" {pouring.words(litres, known=True)}"
        if share
        else "No change is needed: everything is at or under its target."
    )
    split, words = _parts(q, share, w)
    verdict += words
    return WaterChangeAnswer(
        verdict=verdict,
        working=w.lines,
        change_share=share,
        change_l=litres,
        decided_by=decided,
        solutes=[
            SoluteShare(what=s.what, asks_share=a, after_ppm=s.now_ppm * (1 - share) + s.tap_ppm * share)
            for s, a in zip(q.solutes, asks, strict=True)
        ],
        hot_l=hot,
        cold_l=litres - hot,
        conditioner_ml=litres * q.conditioner_ml_per_100l / 100,
        after_ph=split.after_ph,
        ph_shift=split.shift,
        parts_count=split.parts,
        part_l=litres if split.parts == 1 else _part_l(q, share, split.parts),
        apart_hours=PART_H if split.parts > 1 else 0.0,
        salt_g=salt,
        harms=split.harms,
    )


@dataclass(frozen=True)
class _Split:
    after_ph: float | None
    shift: float | None
    parts: int
    harms: bool


def _split(q: WaterChangeQuestion, share: float) -> _Split | None:
    """Smallest number of equal parts each safe on its own; None where too little is known to say.

    With animals in, what is not known of either water stands at the cautious end.
    """
    known = None not in (q.tank_ph, q.tank_kh_dkh, q.tap_ph, q.tap_kh_dkh)
    if not known and not (q.animals_in and (q.tank_ph is not None or q.ammonia_mg_n_l)):
        return None
    here = (q.tank_c, q.salinity_g_kg)
    ph = UNTESTED_PH if q.tank_ph is None else q.tank_ph
    kh = UNTESTED_KH_DKH if q.tank_kh_dkh is None else q.tank_kh_dkh
    tap_ph = max(ph, UNTESTED_TAP_PH) if q.tap_ph is None else q.tap_ph
    tap_kh = max(kh, UNTESTED_TAP_KH_DKH) if q.tap_kh_dkh is None else q.tap_kh_dkh
    tap = Water(Carbonate.of(tap_ph, tap_kh, *here), q.tap_ammonia_mg_n_l)
    begun = Water(Carbonate.of(ph, kh, *here), q.ammonia_mg_n_l or 0.0)
    bounds = Bounds(
        PH_SHIFT_ANIMALS if q.animals_in else PH_SHIFT_EMPTY, begun.carbonate.co2_mmol(), animals_in=q.animals_in
    )
    for parts in range(1, MOST_PARTS + 1):
        each, water, worst, safe = 1 - (1 - min(share, 0.999)) ** (1 / parts), begun, 0.0, True
        for n in range(parts):
            water = water.later(PART_H if n else 0.0, bounds.co2_mmol, 0.0)
            safe = safe and largest_change(water, tap, each, bounds) >= each * 0.999
            after = water.changed(tap, each)
            worst = max(worst, abs(after.carbonate.ph() - water.carbonate.ph()))
            water = after
        if safe:
            break
    return _Split(water.carbonate.ph(), worst, parts, not safe)


def _split_words(q: WaterChangeQuestion, split: _Split, part_l: float) -> str:
    most = PH_SHIFT_ANIMALS if q.animals_in else PH_SHIFT_EMPTY
    shift = split.shift or 0.0
    if split.harms and shift > most:
        return (
            f" Tank and tap are too far apart: even in {split.parts} parts pH would move by {shift:.1f}. Let it drip in"
            " over a day."
        )
    if split.harms:
        return (
            " Not with this tap as it is: its pH would free the ammonia in the tank past its limit, even in"
            f" {split.parts} parts. Bind the ammonia first, or use water matched to the tank's pH."
        )
    if split.parts > 1:
        return (
            f" In {split.parts} parts of {formatting.litres(part_l)}, {PART_H:g} hours apart, so that pH moves no more"
            f" than {most:g} at a time and ammonia stays harmless."
        )
    return ""
