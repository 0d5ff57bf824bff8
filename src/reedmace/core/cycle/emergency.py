"""Animals are in and the film is not: what they can bear, and the day's changes and soda that keep it there."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import acute_criterion_mg_n_l, un_ionised_share
from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.change import Pouring
from reedmace.core.chemistry.dose import soda_g
from reedmace.core.chemistry.harm import (
    NITRATE_LIMIT_MG_N_L,
    SALT_FROM_G_KG,
    Bearing,
    ammonia_limit_mg_n_l,
    nitrite_limit_mg_n_l,
)
from reedmace.core.chemistry.pour import (
    LEAST_SHARE,
    PH_SHIFT_ANIMALS,
    Bounds,
    Water,
    largest_change,
    largest_soda_dkh,
)
from reedmace.core.contract import (
    PH,
    Answer,
    Celsius,
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
from reedmace.core.cycle.log import BottleWindow, TapWater
from reedmace.core.quantity.units import Basis, ppm_words

LARGEST_CHANGE = 0.5
"""Most at one time with animals in (common practice)."""
MOST_CHANGES, APART_H = 4, 4.0
"""Changes in a day, and the hours between them (common practice)."""
MOST_SODA, LEAST_SODA_DKH, DAY_H = 3, 0.2, 24.0
TAP_PH, TAP_KH_DKH = 7.8, 6.0
"""A tap nobody tested is taken for hard and alkaline: the dangerous guess, since it frees ammonia (memory)."""
SODA_TARGET_DKH, SODA_UNDER_DKH = 4.0, 2.0
"""Film is given KH up to the first once it is under the second, unless the animals want softer water (common practice)."""
FALLS_SHORT = " Even so it will not stay under the limit until tomorrow: feed nothing today, and get seeded media or another home."


class EmergencyPlanQuestion(Question):
    """The water as tested today, the tap, what the animals make in a day, and what they like."""

    net_l: NetLitres
    litres_known: bool = Field(
        default=True, description="Whether the tank was measured: else shares are said, not litres"
    )
    ammonia_mg_n_l: MgNPerL
    nitrite_mg_n_l: MgNPerL
    nitrate_mg_n_l: MgNPerL | None = None
    ph: PH = 7.4
    kh_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    temperature_c: Celsius = 25
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    load_mg_n_l_day: Annotated[float, number("mg N/(L day)", 0, 1000)] = 0.2
    feed_g_day: Annotated[float, number("g/day", 0, 5000)] = 0
    tap: TapWater = Field(default_factory=TapWater)
    bottle: BottleWindow = Field(default_factory=BottleWindow)
    animals_low_c: Celsius | None = None
    animals_high_c: Celsius | None = None
    animals_ph_low: PH | None = None
    animals_ph_high: PH | None = None
    gasping: bool = False
    basis: Basis = Field(default="ion", description="In which the sentences speak of ppm")


class Limit(Part):
    """One poison: what is there, what may be, and by which rule."""

    what: Literal["ammonia", "nitrite", "nitrate"]
    now_mg_n_l: MgNPerL
    limit_mg_n_l: MgNPerL
    rule: str
    over: bool


class PlannedChange(Part):
    """One change today."""

    after_hours: Annotated[float, number("h", 0, 24)]
    share: Share
    litres: Litres
    before_ph: Annotated[float, number("pH", 0, 14)]
    ammonia_after_mg_n_l: MgNPerL
    nitrite_after_mg_n_l: MgNPerL
    after_ph: Annotated[float, number("pH", 0, 14)]


StepKind = Literal["aerate", "bind", "change", "drip", "soda", "warm", "cool", "test"]


class PlanStep(Part):
    """One step of the day, in order. What it moves is reckoned with all that comes before it."""

    after_hours: Annotated[float, number("h", 0, 24)]
    do: StepKind
    title: str = Field(description="What, with the amount")
    how: str
    litres: Litres = 0
    grams: Annotated[float, number("g", 0, 1e6)] = 0
    raise_dkh: Annotated[float, number("dKH", 0, 40)] = 0
    before_ph: Annotated[float, number("pH", 0, 14)]
    after_ph: Annotated[float, number("pH", 0, 14)]
    ammonia_reach: Annotated[float, number("ratio", 0, 1e5, "Of its limit, right after")]


class EmergencyPlanAnswer(Answer):
    """Limits, the day's steps, feeding, tests, and when it is a vet's matter. `stands` is the verdict without the changes."""

    stands: str
    in_danger: bool = Field(description="A poison over its limit, or heat or cold past what the animals bear")
    warmth: Literal["fine", "cold", "hot"]
    limits: list[Limit]
    steps: list[PlanStep]
    changes: list[PlannedChange]
    change_share_day: Share
    holds_until_tomorrow: bool
    feed_share: Annotated[float, number("share", 0, 1, "Of the usual food")]
    feeding: str
    tests_per_day: Annotated[int, whole(1, 4)]
    cautions: list[str] = Field(description="The worst first")
    help: list[str] = Field(description="What shortens it, the best first")
    vet: str


@computation("emergency-plan", "What to do when animals are in already")
def emergency_plan(question: EmergencyPlanQuestion) -> EmergencyPlanAnswer:
    """Today's changes and soda in one order, hour by hour, sized for every poison at once until tomorrow.

    question: L, mg N/L, pH, dKH, °C, g/kg, g/day. No step lifts ammonia over its limit at the pH it brings, nor pH by more
    than 0.5 in an hour, on the way or in the hours after.
    Source: Emerson et al. 1975; US EPA 2013; carbonate equilibrium; dilution; nitrite, feeding and sizes common practice.
    """
    q, w = question, Working()
    limits = _limits(q, w)
    over = [one for one in limits if one.over]
    feed_share = 0.25 if any(o.what != "nitrate" for o in over) else 0.5
    made = w.line(
        "P", "load × food given", f"{q.load_mg_n_l_day:.3g} × {feed_share:g}", q.load_mg_n_l_day * feed_share,
        "mg N/(L day)", "timmons",
    )  # fmt: skip
    bearing = Bearing(q.animals_low_c, q.animals_high_c, q.animals_ph_low, q.animals_ph_high)
    warmth: Literal["fine", "cold", "hot"] = (
        "cold" if bearing.too_cold(q.temperature_c) else "hot" if bearing.too_hot(q.temperature_c) else "fine"
    )
    day = _Day(q, made, limits)
    day.plan(w)
    changes = day.changes
    whole_share = w.line(
        "x day", "1 − Π(1 − x)", f"{len(changes)} changes", 1 - _left(changes), "share", "arithmetic"
    )  # fmt: skip
    holds = day.holds()
    stands = _stands(q, over, warmth)
    verdict, short = stands, "" if holds or not over else FALLS_SHORT
    if changes:
        first = _amount(q, changes[0].share)
        rest = " and ".join(f"{_amount(q, c.share)} after {c.after_hours:.0f} h" for c in changes[1:])
        verdict += f" Change {first} now{f' and {rest}' if rest else ''}."
    return EmergencyPlanAnswer(
        verdict=verdict + short,
        stands=stands + short,
        in_danger=bool(over) or warmth != "fine",
        warmth=warmth,
        working=w.lines,
        limits=limits,
        steps=_steps(q, day, warmth),
        changes=changes,
        change_share_day=min(whole_share, 1.0),
        holds_until_tomorrow=holds,
        feed_share=0.0 if not holds else feed_share,
        feeding="Nothing today; fish live a week without food."
        if not holds
        else f"About {'a quarter' if feed_share < 0.5 else 'half'} of the usual, once a day; take out what is left after two minutes."
        + (f" That is {q.feed_g_day * feed_share:.2g} g." if q.feed_g_day else ""),
        tests_per_day=2 if over else 1,
        cautions=_cautions(q, day, over),
        help=_help(q),
        vet="Animals that gasp, lie on their side, bleed at the gills or stop eating for two days: ask a vet who treats fish, and take the readings along.",
    )


def _limits(q: EmergencyPlanQuestion, w: Working) -> list[Limit]:
    w.line(
        "f", "1 / (1 + 10^(pKa − pH))", f"pH {q.ph:g}, {q.temperature_c:g} °C",
        un_ionised_share(q.ph, q.temperature_c, q.salinity_g_kg), "share", "emerson1975",
    )  # fmt: skip
    limit, rule = ammonia_limit_mg_n_l(q.ph, q.temperature_c, q.salinity_g_kg)
    w.line(
        "limit", "min(0.02 / f, 30-day criterion)", rule, limit, "mg N/L", "epa2013" if "EPA" in rule else "practice"
    )
    nitrite = w.line(
        "nitrite limit", "0.5 ppm fresh, 5 ppm salt", "as N", nitrite_limit_mg_n_l(q.salinity_g_kg), "mg N/L", "nitrite"
    )
    rows: list[tuple[Literal["ammonia", "nitrite", "nitrate"], float | None, float, str]] = [
        ("ammonia", q.ammonia_mg_n_l, limit, rule),
        ("nitrite", q.nitrite_mg_n_l, nitrite, "common practice"),
        ("nitrate", q.nitrate_mg_n_l, NITRATE_LIMIT_MG_N_L, "common practice"),
    ]
    return [
        Limit(what=what, now_mg_n_l=now, limit_mg_n_l=most, rule=why, over=now > most)
        for what, now, most, why in rows
        if now is not None
    ]


class _Day:
    """The day as planned: the water carried from step to step."""

    def __init__(self, q: EmergencyPlanQuestion, made: float, limits: list[Limit]) -> None:
        self.q, self.made, self.limits = q, made, limits
        here = (q.temperature_c, q.salinity_g_kg)
        self.water = Water(
            Carbonate.of(q.ph, q.kh_dkh, *here), q.ammonia_mg_n_l, q.nitrite_mg_n_l, q.nitrate_mg_n_l or 0.0
        )
        tap_kh = q.tap.kh_dkh if q.tap.kh_dkh is not None else max(q.kh_dkh, TAP_KH_DKH)
        tap_ph = q.tap.ph if q.tap.ph is not None else max(q.ph, TAP_PH)
        if q.salinity_g_kg > SALT_FROM_G_KG:
            # Replacement water is mixed from salt, whatever the tap was: it comes as the tank should be.
            tap_ph, tap_kh = q.tap.ph or q.ph, q.tap.kh_dkh or q.kh_dkh
        self.tap = Water(
            Carbonate.of(tap_ph, tap_kh, *here), q.tap.ammonia_mg_n_l, q.tap.nitrite_mg_n_l, q.tap.nitrate_mg_n_l
        )
        self.bounds = Bounds(PH_SHIFT_ANIMALS, self.water.carbonate.co2_mmol())
        self.hour = 0.0
        self.changes: list[PlannedChange] = []
        self.soda: list[tuple[float, float, Water, Water]] = []
        self.reaches: list[float] = []

    def wait(self, until_hour: float) -> None:
        hours = until_hour - self.hour
        if hours > 0:
            self.water = self.water.later(hours, self.bounds.co2_mmol, self.made)
            self.hour = until_hour

    def tomorrow(self, water: Water | None = None) -> Water:
        """The water a day from now if nothing more is done."""
        return (water or self.water).later(DAY_H - self.hour, self.bounds.co2_mmol, self.made)

    def excess(self, water: Water) -> float:
        """How far the worst poison stands over what it may be; 1 is just within. Counted as the day will leave it."""
        then = self.tomorrow(water)
        return max(
            water.reach(),
            then.reach(),
            water.nitrite / (0.8 * nitrite_limit_mg_n_l(self.q.salinity_g_kg)),
            water.nitrate / NITRATE_LIMIT_MG_N_L,
        )

    def plan(self, w: Working) -> None:
        for n in range(MOST_CHANGES):
            if self.excess(self.water) <= 1.0:
                break
            if n:
                self.wait(n * APART_H)
            share = self._share()
            if share < LEAST_SHARE:
                break
            before = self.water
            self.water = before.changed(self.tap, share)
            self.changes.append(
                PlannedChange(
                    after_hours=self.hour,
                    share=share,
                    litres=share * self.q.net_l,
                    before_ph=before.carbonate.ph(),
                    ammonia_after_mg_n_l=self.water.ammonia,
                    nitrite_after_mg_n_l=self.water.nitrite,
                    after_ph=self.water.carbonate.ph(),
                )
            )
            self.reaches.append(self.water.reach())
            w.line(
                f"NH {n + 1}", "N (1 − x) + tap × x", f"{before.ammonia:.2f} (1 − {share:.2f}) + {self.tap.ammonia:.2f} × {share:.2f}",
                self.water.ammonia, "mg N/L", "arithmetic",
            )  # fmt: skip
            w.line(
                f"pH {n + 1}", "carbonate of both waters, mixed", f"pH {before.carbonate.ph():.2f} with {self.tap.carbonate.ph():.2f}",
                self.water.carbonate.ph(), "pH", "carbonate",
            )  # fmt: skip
        self._give_soda(w)

    def _share(self) -> float:
        """The smallest change that brings every poison within its limit until tomorrow, or as near as may be poured."""
        most = largest_change(self.water, self.tap, LARGEST_CHANGE, self.bounds)
        if most < LEAST_SHARE or self.excess(self.water.changed(self.tap, most)) >= self.excess(self.water):
            return 0.0
        low, high = 0.0, most
        if self.excess(self.water.changed(self.tap, most)) <= 1.0:
            for _ in range(14):
                middle = (low + high) / 2
                low, high = (
                    (low, middle) if self.excess(self.water.changed(self.tap, middle)) <= 1.0 else (middle, high)
                )
        return max(high, LEAST_SHARE)

    def _give_soda(self, w: Working) -> None:
        """Baking soda once the changes are in, in portions; none where the animals want softer water than it makes."""
        target = soda_target_dkh(self.water.carbonate.kh_dkh(), self.bounds.co2_mmol, self.q)
        for n in range(MOST_SODA):
            if self.changes or n:
                self.wait(self.hour + APART_H)
            missing = target - self.water.carbonate.kh_dkh()
            if missing < LEAST_SODA_DKH or self.hour > DAY_H - APART_H:
                break
            raise_dkh = largest_soda_dkh(self.water, missing, self.bounds)
            if raise_dkh < LEAST_SODA_DKH:
                break
            before, self.water = self.water, self.water.with_soda(raise_dkh)
            self.soda.append((self.hour, raise_dkh, before, self.water))
            w.line(
                f"soda {n + 1}", "ΔKH × litres × 0.03", f"{raise_dkh:.2f} × {self.q.net_l:.1f} × 0.03",
                soda_g(raise_dkh, self.q.net_l), "g", "masses",
            )  # fmt: skip

    def holds(self) -> bool:
        then = self.tomorrow()
        return (
            then.reach() <= 1.001
            and self.water.nitrite <= nitrite_limit_mg_n_l(self.q.salinity_g_kg) * 1.001
            and self.water.nitrate <= NITRATE_LIMIT_MG_N_L * 1.05
        )


def soda_target_dkh(kh_dkh: float, co2_mmol: float, q: EmergencyPlanQuestion) -> float:
    """KH to be reached with baking soda, dKH; what stands already where none is wanted.

    kh_dkh: now; co2_mmol: this tank keeps, mmol/L; q: what the animals like. Source: common practice, carbonate equilibrium.
    """
    if kh_dkh >= SODA_UNDER_DKH:
        return kh_dkh
    if q.animals_ph_high is None:
        return SODA_TARGET_DKH
    low, high = kh_dkh, SODA_TARGET_DKH
    if _settled_ph(high, co2_mmol, q) <= q.animals_ph_high:
        return high
    for _ in range(20):
        middle = (low + high) / 2
        low, high = (middle, high) if _settled_ph(middle, co2_mmol, q) <= q.animals_ph_high else (low, middle)
    return low


def _settled_ph(kh_dkh: float, co2_mmol: float, q: EmergencyPlanQuestion) -> float:
    start = Carbonate.of(7.0, kh_dkh, q.temperature_c, q.salinity_g_kg)
    return start.breathing(co2_mmol, 1000.0).ph()


def _stands(q: EmergencyPlanQuestion, over: list[Limit], warmth: str) -> str:
    acute = acute_criterion_mg_n_l(min(max(q.ph, 6.5), 9.0), min(q.temperature_c, 30.0))
    said = []
    if q.ammonia_mg_n_l > acute and q.salinity_g_kg <= 1:
        said.append(f"Act now: ammonia is above the one-hour criterion of {ppm_words(acute, 'ammonia', q.basis)}.")
    elif over:
        names = " and ".join(o.what for o in over).capitalize()
        said.append(f"{names} {'are' if len(over) > 1 else 'is'} above what animals bear from day to day.")
    if warmth == "cold":
        said.append(f"At {q.temperature_c:g} °C it is too cold for them: they want {q.animals_low_c:g} at least.")
    if warmth == "hot":
        said.append(f"At {q.temperature_c:g} °C it is too hot for them: they bear {q.animals_high_c:g} at most.")
    return " ".join(said) or "Within the limits today; keep it there."


def _amount(q: EmergencyPlanQuestion, share: float) -> str:
    """Litres where the tank was measured, else the share."""
    return (
        f"{share * q.net_l:.{0 if share * q.net_l >= 10 else 1}f} L" if q.litres_known else f"{share:.0%} of the water"
    )


def _left(changes: list[PlannedChange]) -> float:
    left = 1.0
    for change in changes:
        left *= 1 - change.share
    return left


def _steps(q: EmergencyPlanQuestion, day: _Day, warmth: str) -> list[PlanStep]:
    """All of the day in one order: what helps them breathe, what binds, the changes, the soda, the tests."""
    start = Water(Carbonate.of(q.ph, q.kh_dkh, q.temperature_c, q.salinity_g_kg), q.ammonia_mg_n_l)
    before, ph, reach = q.ph, q.ph, start.reach()
    found: list[PlanStep] = []

    def step(
        do: StepKind, at: float, title: str, how: str, litres: float = 0.0, grams: float = 0.0, raise_dkh: float = 0.0
    ) -> None:
        found.append(
            PlanStep(
                after_hours=min(at, DAY_H),
                do=do,
                title=title,
                how=how,
                litres=litres,
                grams=grams,
                raise_dkh=raise_dkh,
                before_ph=before,
                after_ph=ph,
                ammonia_reach=reach,
            )
        )

    over = any(one.over for one in day.limits)
    if q.gasping or warmth == "hot":
        step("aerate", 0, "Give them air", "An air stone, or the outlet turned to the surface, before anything else.")
    if warmth == "hot":
        how = "Lid off, lights off, a fan over the water; a degree or two in an hour at most, no ice in the tank."
        step("cool", 0, "Cool the water", how)
    if warmth == "cold":
        how = "Heater on, under water; a degree in an hour at most. Look whether it is plugged in."
        step("warm", 0, "Warm the water", how)
    if over and not day.holds():
        how = "Conditioner that binds ammonia, by its label, for the whole tank: it buys a day, and kits may go on reading the ammonia."
        step("bind", 0, "Bind the ammonia", how)
    pouring = Pouring(q.temperature_c, q.tap.cold_c, q.tap.hot_c, q.salinity_g_kg, q.tap.chlorine)
    for change, r in zip(day.changes, day.reaches, strict=True):
        before, ph, reach = change.before_ph, change.after_ph, r
        how = pouring.words(change.litres, known=q.litres_known)
        step("change", change.after_hours, f"Change {_amount(q, change.share)}", how, litres=change.litres)
    if over and not day.changes:
        how = "Treated, over hours, testing pH as it goes; no bucket at once."
        step("drip", 0, "Let new water drip in", how)
    for at, raise_dkh, was, water in day.soda:
        before, ph, reach = was.carbonate.ph(), water.carbonate.ph(), water.reach()
        grams = soda_g(raise_dkh, q.net_l) if q.litres_known else 0.0
        title = f"Add {grams:.2g} g of baking soda" if grams else "A little baking soda"
        how = f"Dissolved in a jug of tank water: KH up by {raise_dkh:.1f} dKH." + (
            "" if q.litres_known else " Count the tank's litres first: the grams follow from them."
        )
        step("soda", at, title, how, grams=grams, raise_dkh=raise_dkh)
    if over:
        last = max([c.after_hours for c in day.changes] + [at for at, *_ in day.soda], default=0.0)
        before = ph
        step("test", min(last + 1, DAY_H), "Test again", "Ammonia, nitrite and pH.")
    return found


def _cautions(q: EmergencyPlanQuestion, day: _Day, over: list[Limit]) -> list[str]:
    limit = day.limits[0].limit_mg_n_l
    found: list[str] = []
    if q.gasping:
        found.append("Gasping: aerate now, before anything else; an air stone or the outlet turned to the surface.")
    if q.tap.ammonia_mg_n_l >= limit:
        found.append(
            f"The tap itself brings {ppm_words(q.tap.ammonia_mg_n_l, 'ammonia', q.basis)} of ammonia: use a conditioner that binds it, or purified water brought to this KH."
        )
    tap_ph = day.tap.carbonate.ph()
    if over and q.ammonia_mg_n_l > 0.3 and tap_ph - q.ph > 0.2:
        free = un_ionised_share(min(tap_ph, 10), q.temperature_c, q.salinity_g_kg)
        now = un_ionised_share(q.ph, q.temperature_c, q.salinity_g_kg)
        found.append(
            f"The tap raises pH, which frees ammonia: {now * q.ammonia_mg_n_l:.3f} mg/L of the poison form would be {free * q.ammonia_mg_n_l:.3f} at the tap's pH. That is why the changes are small and several."
        )
    if over and (q.tap.ph is None or q.tap.kh_dkh is None) and q.salinity_g_kg <= SALT_FROM_G_KG:
        found.append(
            f"The tap's pH and KH are not known; it is taken for pH {tap_ph:.1f} and {day.tap.carbonate.kh_dkh():.0f} dKH. Test it: the portions may be larger."
        )
    if over and not day.changes:
        found.append(
            "Tank and tap are far apart in pH: no bucket of it may go in at once. Let it drip in over hours, testing pH as it goes."
        )
    if q.tap.chlorine != "none":
        chloramine = " Chloramine leaves ammonia behind when it is broken: take a conditioner that binds that too." if q.tap.chlorine == "chloramine" else ""  # fmt: skip
        found.append(f"Treat every litre for chlorine and chloramine before it goes in.{chloramine}")
    if q.salinity_g_kg > SALT_FROM_G_KG:
        found.append(
            f"Mix the new water to the tank's own salinity, {q.salinity_g_kg:g} g/kg, a day ahead where you can; top up evaporation with fresh water only."
        )
    if q.animals_ph_high is not None and q.kh_dkh < SODA_UNDER_DKH and not day.soda:
        found.append(
            "No baking soda: these animals want soft water. Film lives in it too, slower and with other microbes; give it weeks, and keep food small."
        )
    found.append("Matched to the tank's temperature. Unplug heater and filter first; plug them back in after.")
    found.append("Ammonia-binding media buy time only; a new, sterile filter does nothing for this.")
    return found


def _help(q: EmergencyPlanQuestion) -> list[str]:
    found = [
        "Seeded media from a healthy tank that runs, wet and aired on the way: the only thing that ends it within days.",
        "Floating and fast-growing plants, as many as you can get: they take ammonia first.",
    ]
    b = q.bottle
    inside = b.low_c <= q.temperature_c <= b.high_c and b.ph_low <= q.ph <= b.ph_high
    found.append(
        "A bottled culture at the most its label allows; it may help, and it cannot hurt."
        if inside and b.in_date
        else "A bottled culture does little here: it is past its date."
        if not b.in_date
        else f"A bottled culture does little here: it wants {b.low_c:g} to {b.high_c:g} °C and pH {b.ph_low:g} to {b.ph_high:g}."
    )
    found.append("Little food, taken out when left, and a test every day until both have read zero for a week.")
    return found
