"""What to do today, in order, each with its reason; and why a cycle has stalled."""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import (
    AlkalinityDoseQuestion,
    AmmoniaDoseQuestion,
    WaterChangeQuestion,
    alkalinity_dose,
    ammonia_dose,
    water_change,
)
from reedmace.core.chemistry.change import PH_SHIFT_ANIMALS, PH_SHIFT_EMPTY, Solute
from reedmace.core.cycle.emergency import EmergencyPlanQuestion, emergency_plan
from reedmace.core.cycle.log import (
    HIGH_AMMONIA_MG_N_L,
    HIGH_NITRITE_MG_N_L,
    ZERO_AMMONIA_MG_N_L,
    ZERO_NITRITE_MG_N_L,
    CycleLog,
)
from reedmace.core.cycle.ramp import RampStep, StockingRampQuestion, stocking_ramp
from reedmace.core.cycle.readiness import CycleReadinessAnswer, CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.stalls import COOL_C, Diagnosis, Finding, Foreseen, State, diagnose, state_of
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.stock import WasteLoadQuestion, waste_load
from reedmace.core.working import Answer, CannotAnswer, Celsius, MgNPerL, Part, Question, Working, number, whole

TOP_UP_UNDER_MG_N_L = 1.0 * NITROGEN_SHARE["NH4"]
TARGET_KH_DKH = 4.0
WARM_C = 27.0
WARMING_C_DAY = 2.0
FINAL_NITRATE_MG_N_L = 20 * NITROGEN_SHARE["NO3"]
FINAL_LEAST, FINAL_MOST = 0.6, 0.9

Do = Literal[
    "test",
    "dose-ammonia",
    "raise-kh",
    "wait",
    "warm",
    "cool",
    "change-water",
    "treat-water",
    "start-filter",
    "stop-dosing",
    "dilute-test",
    "skimmer-off",
    "feed-phosphate",
    "feed-tank",
    "feed-little",
    "watch-growth",
    "add-seed",
    "add-animals",
    "feed-film",
]


class CycleAdviceQuestion(Question):
    """The log as it stands."""

    log: CycleLog


class Action(Part):
    """One thing to do: what, how much, when and why. An amount that does not apply is null."""

    do: Do
    title: str
    detail: str
    reason: str
    when: Literal["now", "tonight", "tomorrow", "later"]
    amount: Annotated[float, number("amount_unit", 0, 1e7)] | None = None
    amount_unit: Literal["g", "mL", "drops", "L"] | None = None
    times_count: Annotated[int, whole(1, 8, "The amount so many times, some hours apart")] = 1
    raise_mg_n_l: MgNPerL | None = Field(default=None, description="What a dose of ammonia adds")
    raise_dkh: Annotated[float, number("dKH", 0, 40)] | None = Field(default=None, description="What bicarbonate adds")
    to_c: Celsius | None = Field(default=None, description="Thermostat to be reached")
    step_c: Annotated[float, number("°C", 0, 5, "Most in a day")] | None = None
    ph_shift: Annotated[float, number("pH", 0, 10, "Expected of one portion")] | None = None
    caution: str | None = None


class CycleAdviceAnswer(Answer):
    """The first action, the rest in order, the stall if there is one, and what would be the next."""

    first: Action
    then: list[Action]
    stalled: bool
    causes: list[Finding]
    ruled_out: list[Finding]
    foreseen: list[Foreseen]
    animals: str


def _dose(log: CycleLog, s: State, w: Working) -> Action | None:
    """The next dose, None where even the smallest would stand above the hold."""
    wanted = log.plan_target_ppm * NITROGEN_SHARE["NH4"] if not log.doses else log.challenge_mg_n_l()
    if log.method in ("seeded-filter", "side-by-side"):
        wanted = log.challenge_mg_n_l()
    wanted = min(wanted, HIGH_AMMONIA_MG_N_L)
    if wanted <= s.ammonia_now:
        return None
    answer = ammonia_dose(
        AmmoniaDoseQuestion(
            net_l=log.net_l, target_ppm=wanted, basis="N", current_ppm=min(s.ammonia_now, 100), product=log.product
        )
    )
    w.lines.extend(answer.working[:3])
    amount, unit = next(
        (a, u) for a, u in ((answer.grams, "g"), (answer.millilitres, "mL"), (answer.drops, "drops")) if a is not None
    )
    return Action(
        do="dose-ammonia",
        title=f"Dose to {wanted / NITROGEN_SHARE['NH4']:.2g} ppm",
        detail=f"{answer.verdict.split(' to bring')[0]}, stirred into a jug of tank water.",
        reason="The film needs feeding, and each dose that is gone in a day is the proof you are after."
        if log.doses
        else "Nothing lives in the filter yet; this is the food that starts it."
        if log.method == "measured-ammonia"
        else "The film that came across must be fed, and a dose gone in a day shows that it lives.",
        when="now",
        amount=amount,
        amount_unit=unit,
        raise_mg_n_l=answer.raise_mg_n_l,
        caution="Aquarium-grade ammonia only, never household cleaner; gloves, away from children, never together with bleach.",
    )


def _raise_kh(log: CycleLog, s: State, w: Working) -> Action:
    kh = s.kh_now or 0.0
    most = PH_SHIFT_ANIMALS if log.animals_are_in() else PH_SHIFT_EMPTY
    # Two portions twelve hours apart; at a steady CO2 pH moves by the logarithm of the KH, so that bounds each.
    base = max(kh, 0.3)
    target = min(TARGET_KH_DKH, base * 10 ** (2 * most))
    middle = (kh + target) / 2
    if middle > base * 10**most:
        target = max(2 * base * 10**most - kh, kh + 0.1)
        middle = (kh + target) / 2
    dose = alkalinity_dose(AlkalinityDoseQuestion(net_l=log.net_l, current_dkh=kh, target_dkh=target, planned_mg_n_l=0))
    w.lines.extend(dose.working[-2:])
    shift = w.line("ΔpH", "log10(KH after / KH before)", f"log10({middle:.2f} / {base:.2f}), the first half", math.log10(middle / base), "pH", "carbonate")  # fmt: skip
    return Action(
        do="raise-kh",
        title=f"Add {_grams(dose.sodium_bicarbonate_g)} g of baking soda",
        detail=f"Sodium bicarbonate, dissolved first, half now and half tonight: KH {kh:.1f} to {target:.2g} dKH.",
        reason="The film burns alkalinity with every milligram of ammonia and stops when it is gone.",
        when="now",
        amount=dose.sodium_bicarbonate_g,
        amount_unit="g",
        raise_dkh=target - kh,
        ph_shift=max(shift, 0.0),
        caution="With animals in, slowly: pH follows KH." if log.animals_are_in() else None,
    )


def _grams(grams: float) -> str:
    return f"{grams:.0f}" if grams >= 10 else f"{grams:.2g}"


def _change(
    log: CycleLog, s: State, solute: Solute, least: float, most: float, w: Working
) -> tuple[float, int, float | None]:
    """(litres of one portion, portions, pH shift of a portion) of a change that brings one solute to its target."""
    answer = water_change(
        WaterChangeQuestion(
            net_l=log.net_l,
            solutes=[solute],
            animals_in=log.animals_are_in(),
        )
    )
    share = min(max(answer.change_share, least), most)
    litres = w.line("V", "share × net litres", f"{share:.2f} × {log.net_l:.0f}", share * log.net_l, "L", "practice")
    if s.ph is None or s.kh_now is None or log.tap.ph is None:
        return litres, 1, None
    # The same share again, now with the pH of both waters, to see in how many portions it must go.
    parts = water_change(
        WaterChangeQuestion(
            net_l=log.net_l,
            solutes=[Solute(what="other", now_ppm=1, target_ppm=1 - share)],
            tank_ph=s.ph,
            tank_kh_dkh=min(s.kh_now, 40),
            tap_ph=log.tap.ph,
            tap_kh_dkh=log.tap_kh_dkh(),
            animals_in=log.animals_are_in(),
        )
    )
    return (parts.part_l if parts.parts_count > 1 else litres), parts.parts_count, parts.ph_shift


def _ready_actions(log: CycleLog, s: State, ready: CycleReadinessAnswer, w: Working) -> list[Action]:
    before = s.nitrate[1] if s.nitrate else 0.0
    target = max(FINAL_NITRATE_MG_N_L, 1.2 * log.tap.nitrate_mg_n_l)
    solute = Solute(
        what="nitrate", now_ppm=min(before, 1e4), tap_ppm=min(log.tap.nitrate_mg_n_l, before), target_ppm=target
    )
    if log.animals_are_in():
        return _carried(log, ready)
    litres, parts, shift = _change(log, s, solute, FINAL_LEAST, FINAL_MOST, w)
    times = f", {parts} times some hours apart" if parts > 1 else ""
    actions = [
        Action(
            do="change-water",
            title=f"Change {litres:.0f} L{times}",
            detail="Treated for chlorine and at the animals' temperature.",
            reason="One large change takes out the nitrate the doses made."
            if parts == 1
            else "It takes out the nitrate the doses made; in portions, so that pH does not jump.",
            when="now",
            amount=litres,
            amount_unit="L",
            times_count=parts,
            ph_shift=shift,
            caution="Unplug heater and filter first; plug them back in after.",
        )
    ]
    cool = _cool(log, s)
    if cool:
        actions.append(cool)
    actions.append(_add_animals(log, ready))
    actions.append(
        Action(
            do="feed-film",
            title="If they come later, keep dosing",
            detail=f"{log.challenge_mg_n_l():.2g} mg N/L every two or three days, and change again the day before.",
            reason="An unfed film fades.",
            when="later",
        )
    )
    return actions


def _carried(log: CycleLog, ready: CycleReadinessAnswer) -> list[Action]:
    """A week of zeros with animals in: the next group, or nothing but the usual care."""
    weekly = Action(
        do="wait",
        title="Weekly care",
        detail="Test, and change a part of the water, once a week; food back to normal over a week.",
        reason="A week of zeros with the animals in: the film carries them.",
        when="later",
    )
    steps = _ramp(log, ready)
    if not steps:
        return [weekly.model_copy(update={"when": "now"})]
    who = " and ".join(f"{a.count} × {a.common_name.lower()}" for a in steps[0].add)
    return [
        Action(
            do="add-animals",
            title=f"You may add {who}",
            detail=f"Write down the day; test on days 1, 3 and 7 after. {steps[0].before}",
            reason="Each group is a new load: the film grows to it in a week or two.",
            when="now",
        ),
        weekly,
    ]


def _ramp(log: CycleLog, ready: CycleReadinessAnswer) -> list[RampStep]:
    """Steps still to come, none where nothing is planned or proven, or where the plan takes too many."""
    if not log.animals:
        return []
    try:
        return stocking_ramp(
            StockingRampQuestion(
                net_l=log.net_l,
                proven_mg_n_l_day=min(ready.proven_mg_n_l_day, 1000),
                animals=log.animals,
                own_species=log.own_species,
                present=log.present,
            )
        ).steps
    except CannotAnswer:
        return []


def _cool(log: CycleLog, s: State) -> Action | None:
    loads = waste_load(WasteLoadQuestion(net_l=log.net_l, animals=log.animals, own_species=log.own_species))
    low, high = loads.temperature_low_c, loads.temperature_high_c
    wanted = (low + high) / 2 if low is not None and high is not None else 25.0
    if s.temperature <= (high if high is not None else 26.5):
        return None
    wanted = min(max(wanted, 0.5), 40.0)
    return Action(
        do="cool",
        title=f"Heater down to {wanted:.0f} °C",
        detail="A degree or two a day, before the animals come.",
        reason=f"{s.temperature:g} °C was for the film; the animals want less.",
        when="now",
        to_c=wanted,
        step_c=WARMING_C_DAY,
    )


def _add_animals(log: CycleLog, ready: CycleReadinessAnswer) -> Action:
    who, when_more = "the first animals", "a part of the stock at a time"
    steps = _ramp(log, ready)
    if steps:
        who = " and ".join(f"{a.count} × {a.common_name.lower()}" for a in steps[0].add)
        when_more = "that is all of them" if len(steps) == 1 else f"no more until day {steps[1].day:.0f} after them"
    return Action(
        do="add-animals",
        title=f"Add {who}",
        detail=f"Within a few days of the change; {when_more}; test daily for a week.",
        reason="The film starves without them, and outgrown it lets ammonia stand.",
        when="tomorrow",
    )


def _animals_in(log: CycleLog, s: State, w: Working) -> tuple[str, list[Action]]:
    """Verdict and actions with animals in: no dose is ever among them."""
    stale = 8.0 if log.settled() else 1.2
    if s.ammonia is None or s.nitrite is None or log.day_now - min(s.ammonia[0], s.nitrite[0]) > stale:
        if log.settled():
            return "The weekly test is due.", [_weekly_test()]
        return (
            "Animals are in: what the water is today decides what to do.",
            [
                Action(
                    do="test",
                    title="Test ammonia, nitrite and pH",
                    detail="Now, and every day until both have read zero for a week.",
                    reason="With animals in and no film yet, both can turn harmful within a day.",
                    when="now",
                ),
                Action(
                    do="feed-little",
                    title="Feed a quarter",
                    detail="Once a day; take out what is left.",
                    reason="Food is where the ammonia comes from.",
                    when="now",
                ),
            ],
        )
    plan = emergency_plan(
        EmergencyPlanQuestion(
            net_l=log.net_l,
            ammonia_mg_n_l=s.ammonia_now,
            nitrite_mg_n_l=s.nitrite[1],
            nitrate_mg_n_l=s.nitrate[1] if s.nitrate else None,
            ph=s.ph if s.ph is not None else log.start_ph,
            kh_dkh=min(s.kh_now if s.kh_now is not None else log.start_kh_dkh, 40),
            temperature_c=s.temperature,
            salinity_g_kg=log.salinity_g_kg,
            load_mg_n_l_day=log.animals_in_mg_n_l_day,
            tap=log.tap,
        )
    )
    w.lines.extend(plan.working)
    if log.settled() and not any(one.over for one in plan.limits):
        return "Its cycle is long over; the water is within the limits.", [
            _weekly_test().model_copy(update={"when": "later"})
        ]
    actions = []
    changed_since = any(c.day > min(s.ammonia[0], s.nitrite[0]) for c in log.changes)
    if plan.changes and not changed_since:
        first = plan.changes[0]
        actions.append(
            Action(
                do="change-water",
                title=f"Change {first.litres:.0f} L now",
                detail=(
                    f"Then {' and '.join(f'{c.litres:.0f} L after {c.after_hours:.0f} h' for c in plan.changes[1:])}. "
                    if len(plan.changes) > 1
                    else ""
                )
                + "Treated, at tank temperature.",
                reason=plan.verdict.split(". ")[0] + ".",
                when="now",
                amount=first.litres,
                amount_unit="L",
                ph_shift=abs(first.after_ph - (s.ph if s.ph is not None else log.start_ph)),
                caution=plan.cautions[0],
            )
        )
    elif not plan.changes and any(one.over for one in plan.limits):
        actions.append(
            Action(
                do="change-water",
                title="Let new water drip in",
                detail="Over hours, treated, testing pH as it goes; no bucket at once.",
                reason=plan.verdict.split(". ")[0] + ".",
                when="now",
                caution=plan.cautions[0],
            )
        )
    elif plan.changes:
        actions.append(
            Action(
                do="test",
                title="Test again after the change",
                detail="Ammonia, nitrite, pH.",
                reason="The last test is from before the change.",
                when="now",
            )
        )
    actions.append(
        Action(
            do="feed-little",
            title="No food today"
            if plan.feed_share == 0
            else f"Feed {'a quarter' if plan.feed_share < 0.5 else 'half'}",
            detail=plan.feeding,
            reason="Food is where the ammonia comes from.",
            when="now",
        )
    )
    if s.low_kh:
        actions.append(_raise_kh(log, s, w))
    if not any(a.do == "test" for a in actions):
        actions.append(
            Action(
                do="test",
                title="Test twice a day" if plan.tests_per_day > 1 else "Test tomorrow",
                detail="Ammonia, nitrite, pH; until both have read zero for a week.",
                reason="A day is long for them.",
                when="tonight" if plan.tests_per_day > 1 else "tomorrow",
            )
        )
    actions.append(
        Action(
            do="add-seed",
            title="Get seeded media",
            detail="From a healthy tank, wet and aired on the way.",
            reason="It is the only thing that shortens this.",
            when="later",
            caution=plan.vet,
        )
    )
    return plan.verdict, actions


def _weekly_test() -> Action:
    return Action(
        do="test",
        title="Test once a week",
        detail="Ammonia, nitrite, nitrate, pH; after new animals, cleaning or a power cut more often.",
        reason="A running filter can still fade or be upset.",
        when="now",
    )


def _first_aid(log: CycleLog, s: State, d: Diagnosis, w: Working) -> list[Action]:
    """What must be put right whatever the stage: filter, alkalinity, chlorine, warmth, too much ammonia, skimmer."""
    actions: list[Action] = []
    if not log.filter_running:
        actions.append(
            Action(
                do="start-filter",
                title="Get the filter running",
                detail="Rinse a closed canister before it starts again; check that water moves.",
                reason="Film without moving water suffocates within hours.",
                when="now",
                caution="Unplug before hands go in; dry the plug.",
            )
        )
    if s.low_kh:
        actions.append(_raise_kh(log, s, w))
    elif s.acid and s.ph is not None:
        actions.append(
            Action(
                do="test",
                title="Test KH",
                detail=f"pH reads {s.ph:.1f}, which slows the film; KH tells whether alkalinity is the reason.",
                reason="Bicarbonate is dosed by KH, not by pH.",
                when="now",
            )
        )
    if d.has("chlorine") and any(not c.treated and log.day_now - c.day <= 1.5 for c in log.changes):
        actions.append(
            Action(
                do="treat-water",
                title="Treat the water now",
                detail="Conditioner to the whole tank's litres, not to the bucket's.",
                reason="Untreated water went in; what chlorine is left goes on killing the film.",
                when="now",
            )
        )
    if s.temperature < COOL_C:
        actions.append(
            Action(
                do="warm",
                title=f"Warm the water to {WARM_C:g} °C",
                detail="While there are no animals; a degree or two a day, and back to the animals' range before they come.",
                reason=f"At {s.temperature:g} °C the film works at about {100 * 1.08 ** (s.temperature - WARM_C):.0f} % of its pace at {WARM_C:g} °C.",
                when="now",
                to_c=WARM_C,
                step_c=WARMING_C_DAY,
                caution="Never run a heater out of water.",
            )
        )
    elif d.has("hot"):
        actions.append(
            Action(
                do="cool",
                title="Heater down to 28 °C",
                detail="A couple of degrees a day.",
                reason="Above 33 °C the film slows, above 36 it dies.",
                when="now",
                to_c=28,
                step_c=WARMING_C_DAY,
            )
        )
    if d.has("overdosed") and log.tap.ammonia_mg_n_l < 0.6 * HIGH_AMMONIA_MG_N_L:
        solute = Solute(
            what="ammonia",
            now_ppm=min(s.ammonia_now, 1e4),
            tap_ppm=log.tap.ammonia_mg_n_l,
            target_ppm=0.6 * HIGH_AMMONIA_MG_N_L,
        )
        litres, parts, shift = _change(log, s, solute, 0.0, FINAL_MOST, w)
        actions.append(
            Action(
                do="change-water",
                title=f"Change {litres:.0f} L" + (f", {parts} times" if parts > 1 else ""),
                detail="Treated for chlorine, at tank temperature.",
                reason=f"Ammonia at {s.ammonia_now / NITROGEN_SHARE['NH4']:.1f} ppm is over the 5 ppm at which it holds the film back.",
                when="now",
                amount=litres,
                amount_unit="L",
                times_count=parts,
                ph_shift=shift,
            )
        )
    if d.has("skimmer"):
        actions.append(
            Action(
                do="skimmer-off",
                title="Skimmer off",
                detail="Until there are animals.",
                reason="It takes out what the film should eat.",
                when="now",
            )
        )
    if d.has("off-scale"):
        actions.append(
            Action(
                do="dilute-test",
                title="Read nitrite diluted",
                detail="One part tank water to three of nitrite-free water, then multiply by four.",
                reason="Off the scale says only 'this or more': a fall would not show.",
                when="tomorrow",
            )
        )
    if d.has("phosphate"):
        actions.append(
            Action(
                do="feed-phosphate",
                title="A pinch of fish food",
                detail="Once a week, or a plant fertiliser that has phosphate.",
                reason="Nothing grows without phosphorus, and the test finds none.",
                when="now",
            )
        )
    return actions


def _baseline(log: CycleLog, s: State, w: Working) -> list[Action]:
    what = "ammonia, nitrite, nitrate, pH and KH" if s.newest is None else "ammonia and nitrite"
    actions = [
        Action(
            do="test",
            title=f"Test {what}",
            detail="Before anything is dosed: this is the baseline everything later is read against.",
            reason="Tap water can bring ammonia, nitrate or no alkalinity at all.",
            when="now",
        )
    ]
    calm = s.nitrite is None or s.nitrite[1] < 0.98 * HIGH_NITRITE_MG_N_L
    if not log.doses and log.method == "measured-ammonia" and calm:
        dose = _dose(log, s, w)
        if dose:
            actions.append(dose)
    return actions


def _onwards(log: CycleLog, s: State, actions: list[Action], w: Working) -> list[Action]:
    """What comes after first aid: testing, dosing, feeding, waiting."""
    found = list(actions)
    since = log.day_now - s.newest.day if s.newest else 99.0
    quiet = log.method == "planted"
    due = since >= (6.5 if quiet else 0.95 if s.ammonia_now <= 1.5 else 1.95)
    high_nitrite = s.nitrite is not None and s.nitrite[1] >= 0.98 * HIGH_NITRITE_MG_N_L
    high_ammonia = s.ammonia_now > HIGH_AMMONIA_MG_N_L
    blocked = s.low_kh or s.acid or high_nitrite or not log.filter_running or high_ammonia
    if high_nitrite and not s.low_kh and log.doses_ammonia():
        found.append(
            Action(
                do="stop-dosing",
                title="No ammonia for now",
                detail="Until nitrite reads under 5 ppm.",
                reason="More ammonia only becomes more nitrite.",
                when="now",
            )
        )
    elif blocked and log.doses_ammonia():
        found.append(
            Action(
                do="wait",
                title="Then wait with ammonia",
                detail="No dose until it reads under 1 ppm and the water is put right.",
                reason="A stopped film cannot use it.",
                when="later",
            )
        )
    if due and since > 0.6:
        found.append(
            Action(
                do="test",
                title="Test ammonia and nitrite",
                detail="And pH and KH if it is three days since.",
                reason=f"The last test is {since:.0f} day{'s' if round(since) != 1 else ''} old.",
                when="now",
            )
        )
    elif log.doses_ammonia() and not blocked:
        under = TOP_UP_UNDER_MG_N_L if log.method in ("measured-ammonia", "mature-rock") else ZERO_AMMONIA_MG_N_L
        dose = _dose(log, s, w) if s.ammonia_now <= under else None
        if dose:
            found.append(dose)
    if log.method == "fish-food":
        grams = max(log.planned_load_mg_n_l_day * log.net_l / 38.6, 0.05)
        found.append(
            Action(
                do="feed-tank",
                title=f"Feed {log.food_g_day or grams:.2g} g",
                detail="Ground fine, once a day, as if the animals were in.",
                reason="Rotting food is what feeds this film.",
                when="now",
                amount=log.food_g_day or grams,
                amount_unit="g",
            )
        )
    if quiet:
        seen = log.plants_growing_day is not None
        found.append(
            Action(
                do="watch-growth",
                title="Leave it to the plants" if seen else "Watch for new growth",
                detail="Light as long as always, dead leaves out; test once a week."
                if seen
                else "New leaves and runners, not old ones turning; write down the day they show.",
                reason="Growing plants take the ammonia; the four weeks count from new growth.",
                when="now",
            )
        )
    if not any(a.do == "test" for a in found):
        wait = 7 if quiet else 1 if s.ammonia_now <= 1.5 or s.low_kh else 2
        words = {1: "a day", 2: "two days", 7: "a week"}[wait]
        found.append(
            Action(
                do="test",
                title="Test tomorrow" if wait == 1 else "Test again",
                detail=f"Ammonia and nitrite{', pH and KH' if s.low_kh or s.acid else ''}, in {words}.",
                reason="A dose gone in a day is the measure." if log.doses_ammonia() else "Only tests tell.",
                when="tomorrow" if wait == 1 else "later",
            )
        )
    if (
        log.doses_ammonia()
        and log.day_now > 24
        and (s.nitrite is None or s.nitrite[1] <= ZERO_NITRITE_MG_N_L)
        and s.ammonia_now > 1
        and not blocked
    ):
        found.append(
            Action(
                do="add-seed",
                title="Get a handful of seeded media",
                detail="From a healthy tank, wet on the way.",
                reason="After more than three weeks nothing has begun to use the ammonia.",
                when="later",
            )
        )
    return found


def cycle_advice(question: CycleAdviceQuestion) -> CycleAdviceAnswer:
    """What to do today, in order.

    question: the log in days, mg N/L, dKH and °C.
    Source: common practice for the thresholds; US EPA 1993 for alkalinity; Emerson et al. 1975 for the poison share.
    """
    log, w = question.log, Working()
    s = state_of(log)
    ready = cycle_readiness(CycleReadinessQuestion(log=log))
    d = diagnose(log, s, w)
    if ready.ready:
        actions = _ready_actions(log, s, ready, w)
        verdict = (
            "It holds: a week of zeros with the animals in."
            if log.animals_are_in()
            else "You may add fish: the filter clears what they will make."
        )
        stalled = False
    elif log.animals_are_in():
        aid = [a for a in _first_aid(log, s, d, w) if a.do in ("start-filter", "treat-water")]
        verdict, more = _animals_in(log, s, w)
        actions, stalled = aid + more, d.stuck and bool(d.causes)
    else:
        actions = _first_aid(log, s, d, w)
        if s.newest is None or s.ammonia is None or s.nitrite is None:
            actions = _baseline(log, s, w) + actions
        else:
            actions = _onwards(log, s, actions, w)
        stalled = (d.stuck and bool(d.causes)) or (s.low_kh and s.acid)
        verdict = _verdict(log, s, d, stalled)
    return CycleAdviceAnswer(
        verdict=verdict,
        working=w.lines,
        first=actions[0],
        then=actions[1:],
        stalled=stalled,
        causes=d.causes if stalled or not log.filter_running else [],
        ruled_out=d.ruled_out if stalled else [],
        foreseen=[] if ready.ready else d.foreseen,
        animals="Add the first animals after the large change."
        if ready.ready
        else f"Animals: not yet. {ready.verdict.removeprefix('Not yet, because ')[0].upper()}{ready.verdict.removeprefix('Not yet, because ')[1:]}",
    )


def _verdict(log: CycleLog, s: State, d: Diagnosis, stalled: bool) -> str:
    if stalled and s.low_kh:
        return (
            "It has stalled: the film has used up the alkalinity and the water turned acid."
            if s.acid
            else "It is about to stall: the alkalinity is nearly used up."
        )
    if stalled:
        return f"It has stalled: {d.causes[0].title[0].lower()}{d.causes[0].title[1:]}"
    if not log.readings:
        return "Nothing is known yet: begin with a test of the bare water."
    if s.low_kh:
        return "KH is low: put it right before it stops the film."
    if log.method == "planted":
        return (
            "Quiet: the plants are at work, and the weeks are counting."
            if log.plants_growing_day is not None
            else "Waiting for new growth: until it shows, the plants take little."
        )
    if s.nitrite and s.nitrite[1] > ZERO_NITRITE_MG_N_L:
        return (
            "On its way: ammonia is being turned into nitrite, and the second half of the film is growing."
            if s.ammonia_now < 1.5 or s.nitrite[1] > 0.3
            else "It has begun: the first nitrite shows."
        )
    if s.nitrate and s.nitrate[1] > 1 and s.ammonia_now <= ZERO_AMMONIA_MG_N_L:
        return (
            "Nearly there: both read zero. Now prove it with a dose."
            if log.doses_ammonia()
            else "Nearly there: both read zero."
        )
    return (
        "Waiting for the first film: nothing has used the ammonia yet, which is usual in the first one to three weeks."
    )
