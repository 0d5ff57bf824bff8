"""Animals are in and the film is not: what they can bear, and the changes that keep it there."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import acute_criterion_mg_n_l, chronic_criterion_mg_n_l, mixed_ph, un_ionised_share
from reedmace.core.chemistry.change import PH_SHIFT_ANIMALS
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
from reedmace.core.cycle.log import TapWater
from reedmace.core.quantity.units import NITROGEN_SHARE, Basis, ppm_words

NH3_LIMIT_MG_N_L = 0.02
"""Free ammonia keepers hold a tank under from day to day (common practice)."""
NITRITE_LIMIT_MG_N_L = {"fresh": 0.5 * NITROGEN_SHARE["NO2"], "salt": 5 * NITROGEN_SHARE["NO2"]}
"""Half a ppm in fresh water; chloride blocks it at the gills, so ten times that in salt (common practice)."""
NITRATE_LIMIT_MG_N_L = 40 * NITROGEN_SHARE["NO3"]
LARGEST_CHANGE = 0.5
"""Most at one time with animals in (common practice)."""
MOST_CHANGES = 4
FALLS_SHORT = " Even so it will not stay under the limit until tomorrow: feed nothing today, and get seeded media or another home."
LEAST_CHANGE = 0.02
"""Under this a change is a drip: tank and tap are too far apart in pH to be mixed at once (memory)."""


class EmergencyPlanQuestion(Question):
    """The water as tested today, the tap, and what the animals make in a day."""

    net_l: NetLitres
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
    ammonia_after_mg_n_l: MgNPerL
    nitrite_after_mg_n_l: MgNPerL
    after_ph: Annotated[float, number("pH", 0, 14)]


class EmergencyPlanAnswer(Answer):
    """Limits, today's changes, feeding, tests, and when it is a vet's matter. `stands` is the verdict without the changes."""

    stands: str
    limits: list[Limit]
    changes: list[PlannedChange]
    change_share_day: Share
    holds_until_tomorrow: bool
    feed_share: Annotated[float, number("share", 0, 1, "Of the usual food")]
    feeding: str
    tests_per_day: Annotated[int, whole(1, 4)]
    cautions: list[str]
    vet: str


def ammonia_limit_mg_n_l(ph: float, temperature_c: float, salinity_g_kg: float) -> tuple[float, str]:
    """(mg TAN-N/L, rule) that may stand from day to day: the stricter of free ammonia and the 30-day criterion.

    ph: 4 to 10; temperature_c: 0.5 to 40 °C; salinity_g_kg: 0 to 45 g/kg.
    Source: common practice for 0.02 mg/L of free ammonia; US EPA 2013 in fresh water, within pH 6.5 to 9 and 0 to 30 °C.
    """
    by_share = NH3_LIMIT_MG_N_L / un_ionised_share(ph, temperature_c, salinity_g_kg)
    if salinity_g_kg > 1:
        return by_share, "0.02 mg/L of free ammonia, as N"
    published = chronic_criterion_mg_n_l(min(max(ph, 6.5), 9.0), min(temperature_c, 30.0))
    return min((by_share, "0.02 mg/L of free ammonia, as N"), (published, "the 30-day criterion of US EPA 2013"))


@computation("emergency-plan", "What to do when animals are in already")
def emergency_plan(question: EmergencyPlanQuestion) -> EmergencyPlanAnswer:
    """Today's water changes, sized for every poison at once until tomorrow, with the tap's own content.

    question: L, mg N/L, pH, dKH, °C, g/kg, g/day.
    Source: Emerson et al. 1975; US EPA 2013; dilution; nitrite, feeding and sizes are common practice.
    """
    q, w = question, Working()
    share_nh3 = w.line(
        "f", "1 / (1 + 10^(pKa − pH))", f"pH {q.ph:g}, {q.temperature_c:g} °C",
        un_ionised_share(q.ph, q.temperature_c, q.salinity_g_kg), "share", "emerson1975",
    )  # fmt: skip
    limit, rule = ammonia_limit_mg_n_l(q.ph, q.temperature_c, q.salinity_g_kg)
    w.line(
        "limit", "min(0.02 / f, 30-day criterion)", rule, limit, "mg N/L", "epa2013" if "EPA" in rule else "practice"
    )
    nitrite_limit = NITRITE_LIMIT_MG_N_L["salt" if q.salinity_g_kg > 5 else "fresh"]
    w.line("nitrite limit", "0.5 ppm fresh, 5 ppm salt", "as N", nitrite_limit, "mg N/L", "nitrite")
    limits = [
        Limit(
            what="ammonia", now_mg_n_l=q.ammonia_mg_n_l, limit_mg_n_l=limit, rule=rule, over=q.ammonia_mg_n_l > limit
        ),
        Limit(
            what="nitrite",
            now_mg_n_l=q.nitrite_mg_n_l,
            limit_mg_n_l=nitrite_limit,
            rule="common practice",
            over=q.nitrite_mg_n_l > nitrite_limit,
        ),
    ]
    if q.nitrate_mg_n_l is not None:
        limits.append(
            Limit(
                what="nitrate",
                now_mg_n_l=q.nitrate_mg_n_l,
                limit_mg_n_l=NITRATE_LIMIT_MG_N_L,
                rule="common practice",
                over=q.nitrate_mg_n_l > NITRATE_LIMIT_MG_N_L,
            )
        )
    over = [one for one in limits if one.over]
    feed_share = 0.25 if any(o.what != "nitrate" for o in over) else 0.5
    made = w.line(
        "P", "load × food given", f"{q.load_mg_n_l_day:.3g} × {feed_share:g}", q.load_mg_n_l_day * feed_share,
        "mg N/(L day)", "timmons",
    )  # fmt: skip
    changes, ammonia, nitrite = _changes(q, limit, nitrite_limit, made, w)
    whole_share = w.line(
        "x day", "1 − Π(1 − x)", f"{len(changes)} changes", 1 - _product(changes), "share", "arithmetic"
    )
    acute = acute_criterion_mg_n_l(min(max(q.ph, 6.5), 9.0), min(q.temperature_c, 30.0))
    cautions = []
    tap_high = q.tap.ammonia_mg_n_l >= limit
    if tap_high:
        cautions.append(
            f"The tap itself brings {ppm_words(q.tap.ammonia_mg_n_l, 'ammonia', q.basis)} of ammonia: use a conditioner that binds it, or purified water brought to this KH."
        )
    if q.tap.chlorine != "none":
        cautions.append("Treat every litre for chlorine and chloramine before it goes in.")
    if changes and changes[0].after_ph - q.ph > 0.2 and q.ammonia_mg_n_l > 0.3:
        after = changes[0].ammonia_after_mg_n_l * un_ionised_share(
            min(max(changes[0].after_ph, 4), 10), q.temperature_c, q.salinity_g_kg
        )
        cautions.append(
            f"The tap raises pH to {changes[0].after_ph:.1f}, which frees ammonia: {q.ammonia_mg_n_l * share_nh3:.3f} becomes {after:.3f} mg/L of the poison form. That is why the changes are small and several."
        )
    if over and _largest_share(q, q.ph, max(q.kh_dkh, 0.05)) < LEAST_CHANGE:
        cautions.append(
            "Tank and tap are far apart in pH: no bucket of it may go in at once. Let it drip in over hours, testing pH as it goes."
        )
    cautions.append("Matched to the tank's temperature. Unplug heater and filter first; plug them back in after.")
    cautions.append("Ammonia-binding media buy time only; a new, sterile filter does nothing for this.")
    if q.gasping:
        cautions.insert(
            0, "Gasping: aerate now, before anything else; an air stone or the outlet turned to the surface."
        )
    holds = ammonia + made <= limit * 1.001 and nitrite <= nitrite_limit * 1.001
    if q.ammonia_mg_n_l > acute and q.salinity_g_kg <= 1:
        stands = f"Act now: ammonia is above the one-hour criterion of {ppm_words(acute, 'ammonia', q.basis)}."
    elif over:
        names = " and ".join(o.what for o in over).capitalize()
        stands = f"{names} {'are' if len(over) > 1 else 'is'} above what animals bear from day to day."
    else:
        stands = "Within the limits today; keep it there."
    verdict, short = stands, "" if holds or not changes else FALLS_SHORT
    if changes:
        words = f"Change {changes[0].litres:.0f} L" + (
            f" now and {' and '.join(f'{c.litres:.0f} L after {c.after_hours:.0f} h' for c in changes[1:])}"
            if len(changes) > 1
            else " now"
        )
        verdict += f" {words}."
    return EmergencyPlanAnswer(
        verdict=verdict + short,
        stands=stands + short,
        working=w.lines,
        limits=limits,
        changes=changes,
        change_share_day=min(whole_share, 1.0),
        holds_until_tomorrow=holds,
        feed_share=0.0 if not holds else feed_share,
        feeding="Nothing today; fish live a week without food."
        if not holds
        else f"About {'a quarter' if feed_share < 0.5 else 'half'} of the usual, once a day; take out what is left after two minutes."
        + (f" That is {q.feed_g_day * feed_share:.2g} g." if q.feed_g_day else ""),
        tests_per_day=2 if over else 1,
        cautions=cautions,
        vet="Animals that gasp, lie on their side, bleed at the gills or stop eating for two days: ask a vet who treats fish, and take the readings along.",
    )


def _product(changes: list[PlannedChange]) -> float:
    left = 1.0
    for change in changes:
        left *= 1 - change.share
    return left


def _largest_share(q: EmergencyPlanQuestion, ph: float, kh: float) -> float:
    """The largest single change that moves pH no more than it may."""
    tap_ph, tap_kh = q.tap.ph, q.tap.kh_dkh
    if tap_ph is None:
        return LARGEST_CHANGE
    tap_kh = kh if tap_kh is None else tap_kh

    def shift(share: float) -> float:
        return abs(mixed_ph(ph, kh, tap_ph, tap_kh, share) - ph)

    if shift(LARGEST_CHANGE) <= PH_SHIFT_ANIMALS:
        return LARGEST_CHANGE
    low, high = 0.0, LARGEST_CHANGE
    for _ in range(24):
        middle = (low + high) / 2
        low, high = (middle, high) if shift(middle) <= PH_SHIFT_ANIMALS else (low, middle)
    return low


def _changes(
    q: EmergencyPlanQuestion, limit: float, nitrite_limit: float, made: float, w: Working
) -> tuple[list[PlannedChange], float, float]:
    """Today's changes; ammonia and nitrite after the last of them."""
    ammonia, nitrite = q.ammonia_mg_n_l, q.nitrite_mg_n_l
    nitrate, ph, kh = q.nitrate_mg_n_l or 0.0, q.ph, q.kh_dkh
    rows: list[PlannedChange] = []
    # To be under the limit still before tomorrow's change, it must end lower by what a day makes.
    aim = max(limit - made, 0.25 * limit)
    for n in range(MOST_CHANGES):
        asks = [
            (now - target) / (now - tap)
            for now, target, tap in (
                (ammonia, aim, q.tap.ammonia_mg_n_l),
                (nitrite, nitrite_limit * 0.8, q.tap.nitrite_mg_n_l),
                (nitrate, NITRATE_LIMIT_MG_N_L, q.tap.nitrate_mg_n_l),
            )
            if now > target * 1.001 and now > tap
        ]
        if not asks or max(asks) < 0.02:
            break
        share = min(max(asks), _largest_share(q, ph, max(kh, 0.05)))
        if share < LEAST_CHANGE:
            break
        tap_kh = kh if q.tap.kh_dkh is None else q.tap.kh_dkh
        after = ph if q.tap.ph is None else mixed_ph(ph, max(kh, 0.05), q.tap.ph, tap_kh, share)
        ammonia = w.line(
            f"NH {n + 1}", "N (1 − x) + tap × x", f"{ammonia:.2f} (1 − {share:.2f}) + {q.tap.ammonia_mg_n_l:.2f} × {share:.2f}",
            ammonia * (1 - share) + q.tap.ammonia_mg_n_l * share, "mg N/L", "arithmetic",
        )  # fmt: skip
        nitrite = nitrite * (1 - share) + q.tap.nitrite_mg_n_l * share
        nitrate = nitrate * (1 - share) + q.tap.nitrate_mg_n_l * share
        ph, kh = after, kh * (1 - share) + tap_kh * share
        rows.append(
            PlannedChange(
                after_hours=n * 4,
                share=share,
                litres=share * q.net_l,
                ammonia_after_mg_n_l=ammonia,
                nitrite_after_mg_n_l=nitrite,
                after_ph=after,
            )
        )
    return rows, ammonia, nitrite
