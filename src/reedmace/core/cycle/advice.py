"""What to do today, in order, each with its reason; and why a cycle has stalled."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import (
    AlkalinityDoseQuestion,
    AmmoniaDoseQuestion,
    WaterChangeQuestion,
    alkalinity_dose,
    ammonia_dose,
    un_ionised_share,
    water_change,
)
from reedmace.core.chemistry.change import Solute
from reedmace.core.cycle.log import (
    HIGH_AMMONIA_MG_N_L,
    HIGH_NITRITE_MG_N_L,
    ZERO_AMMONIA_MG_N_L,
    ZERO_NITRITE_MG_N_L,
    CycleLog,
)
from reedmace.core.cycle.readiness import CycleReadinessQuestion, cycle_readiness
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.working import Answer, MgNPerL, Part, Question, Working, number

TOP_UP_UNDER_MG_N_L = 1.0 * NITROGEN_SHARE["NH4"]
LOW_KH_DKH, TARGET_KH_DKH = 2.0, 4.0
LOW_PH, STOPPED_PH = 6.8, 6.5
COOL_C, WARM_C = 22.0, 27.0

Do = Literal[
    "test",
    "dose-ammonia",
    "raise-kh",
    "wait",
    "warm",
    "change-water",
    "start-filter",
    "stop-dosing",
    "dilute-test",
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
    raise_mg_n_l: MgNPerL | None = Field(default=None, description="What a dose of ammonia adds")
    raise_dkh: Annotated[float, number("dKH", 0, 40)] | None = Field(default=None, description="What bicarbonate adds")
    caution: str | None = None


class Finding(Part):
    """One thing looked at: a cause of a stall, or ruled out."""

    title: str
    detail: str


class CycleAdviceAnswer(Answer):
    """The first action, the rest in order, and the stall if there is one."""

    first: Action
    then: list[Action]
    stalled: bool
    causes: list[Finding]
    ruled_out: list[Finding]
    animals: str


def _stuck(log: CycleLog) -> bool:
    """Nitrite or ammonia stands high and has not fallen over the last three readings spanning two days or more."""
    for field, high in (("nitrite_mg_n_l", 0.6), ("ammonia_mg_n_l", 0.6)):
        rows = [
            (r.day, getattr(r, field))
            for r in sorted(log.readings, key=lambda r: r.day)
            if getattr(r, field) is not None
        ][-3:]
        if (
            len(rows) == 3
            and rows[-1][0] - rows[0][0] >= 2
            and rows[-1][1] >= max(high, 0.95 * rows[0][1])
            and log.day_now > 10
        ):
            return True
    return False


def _dose_action(log: CycleLog, ammonia_mg_n_l: float, w: Working) -> Action:
    target_n = log.plan_target_ppm * NITROGEN_SHARE["NH4"] if not log.doses else log.challenge_mg_n_l()
    answer = ammonia_dose(
        AmmoniaDoseQuestion(
            net_l=log.net_l,
            target_ppm=min(target_n, 20),
            basis="N",
            current_ppm=min(ammonia_mg_n_l, 100),
            product=log.product,
        )
    )
    w.lines.extend(answer.working[:3])
    amount, unit = next(
        (a, u) for a, u in ((answer.grams, "g"), (answer.millilitres, "mL"), (answer.drops, "drops")) if a is not None
    )
    ppm = target_n / NITROGEN_SHARE["NH4"]
    return Action(
        do="dose-ammonia",
        title=f"Dose to {ppm:.2g} ppm",
        detail=f"{answer.verdict.split(' to bring')[0]}, stirred into a jug of tank water.",
        reason="The film needs feeding, and each dose that is gone in a day is the proof you are after."
        if log.doses
        else "Nothing lives in the filter yet; this is the food that starts it.",
        when="now",
        amount=amount,
        amount_unit=unit,
        raise_mg_n_l=answer.raise_mg_n_l,
        caution="Aquarium-grade ammonia only, never household cleaner; gloves, away from children, never together with bleach.",
    )


def cycle_advice(question: CycleAdviceQuestion) -> CycleAdviceAnswer:
    """What to do today, in order.

    question: the log in days, mg N/L, dKH and °C.
    Source: common practice for the thresholds; US EPA 1993 for alkalinity; Emerson et al. 1975 for the poison share.
    """
    log, w = question.log, Working()
    actions: list[Action] = []
    causes: list[Finding] = []
    ruled: list[Finding] = []
    ammonia, nitrite, nitrate = log.latest("ammonia_mg_n_l"), log.latest("nitrite_mg_n_l"), log.latest("nitrate_mg_n_l")
    kh, ph = log.latest("kh_dkh"), log.latest("ph")
    temperature = log.latest("temperature_c") or (0.0, log.temperature_c)
    # Doses and bicarbonate since a reading change what it says now.
    ammonia_now = (
        ammonia[1] + sum(d.raise_mg_n_l for d in log.doses if d.day > ammonia[0])
        if ammonia
        else sum(d.raise_mg_n_l for d in log.doses)
    )
    kh_now = kh[1] + sum(a.raise_dkh for a in log.alkalinity if a.day > kh[0]) if kh else None
    stuck = _stuck(log)
    ready = cycle_readiness(
        CycleReadinessQuestion(log=log, standard="seeded" if log.method == "seeded-filter" else "load-matched")
    )
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
        causes.append(Finding(title="The filter is off.", detail="No water reaches the film."))
    else:
        ruled.append(Finding(title="The filter.", detail="No stop is logged."))
    low_kh = kh_now is not None and kh_now < LOW_KH_DKH
    treated_since_ph = ph is not None and any(a.day >= ph[0] for a in log.alkalinity)
    acid = ph is not None and ph[1] < LOW_PH and not treated_since_ph
    if low_kh and kh_now is not None:
        dose = alkalinity_dose(
            AlkalinityDoseQuestion(net_l=log.net_l, current_dkh=kh_now, target_dkh=TARGET_KH_DKH, planned_mg_n_l=0)
        )
        w.lines.extend(dose.working[-2:])
        actions.append(
            Action(
                do="raise-kh",
                title=f"Add {dose.sodium_bicarbonate_g:.0f} g of baking soda",
                detail=f"Sodium bicarbonate, dissolved first, half now and half tonight: KH {kh_now:.1f} to {TARGET_KH_DKH:g} dKH.",
                reason="The film burns alkalinity with every milligram of ammonia and stops when it is gone.",
                when="now",
                amount=dose.sodium_bicarbonate_g,
                amount_unit="g",
                raise_dkh=TARGET_KH_DKH - kh_now,
            )
        )
        burned = sum(d.raise_mg_n_l for d in log.doses) * 7.14 / 17.85
        w.line(
            "ΔKH",
            "7.14 × N dosed / 17.85",
            f"7.14 × {sum(d.raise_mg_n_l for d in log.doses):.2f} / 17.85",
            burned,
            "dKH",
            "epa1993",
        )
        causes.append(
            Finding(
                title="Alkalinity is nearly spent.",
                detail=f"KH reads {kh_now:.1f} dKH. The {sum(d.raise_mg_n_l for d in log.doses):.1f} mg N/L dosed so far can burn {burned:.1f} dKH of the {log.start_kh_dkh:.1f} you began with.",
            )
        )
        if acid and ph:
            causes.append(
                Finding(title=f"So pH fell to {ph[1]:.1f}.", detail=f"Below about {STOPPED_PH} the film all but stops.")
            )
    elif acid and ph:
        actions.append(
            Action(
                do="test",
                title="Test KH",
                detail=f"pH reads {ph[1]:.1f}, which slows the film; KH tells whether alkalinity is the reason.",
                reason="Bicarbonate is dosed by KH, not by pH.",
                when="now",
            )
        )
        causes.append(
            Finding(title=f"pH is {ph[1]:.1f}.", detail="Below about 6.8 the film slows, below 6.5 it all but stops.")
        )
    elif kh_now is not None:
        ruled.append(Finding(title="Alkalinity.", detail=f"KH {kh_now:.1f} dKH is enough for now."))
    if temperature[1] < COOL_C:
        actions.append(
            Action(
                do="warm",
                title=f"Warm the water to {WARM_C:g} °C",
                detail="While there are no animals; a degree or two a day, and back to the animals' range before they come.",
                reason=f"At {temperature[1]:g} °C the film works at about {100 * 1.08 ** (temperature[1] - WARM_C):.0f} % of its pace at {WARM_C:g} °C.",
                when="now",
                caution="Never run a heater out of water.",
            )
        )
        causes.append(Finding(title="It is cold.", detail=f"{temperature[1]:g} °C."))
    else:
        ruled.append(Finding(title="Warmth.", detail=f"{temperature[1]:g} °C is warm enough."))
    if ammonia and ammonia_now > HIGH_AMMONIA_MG_N_L:
        fraction = water_change(
            WaterChangeQuestion(
                net_l=log.net_l,
                solutes=[Solute(what="ammonia", now_ppm=min(ammonia_now, 1e4), target_ppm=HIGH_AMMONIA_MG_N_L * 0.6)],
            )
        )
        actions.append(
            Action(
                do="change-water",
                title=f"Change {fraction.change_l:.0f} L",
                detail="Treated for chlorine, at tank temperature.",
                reason=f"Ammonia at {ammonia_now / NITROGEN_SHARE['NH4']:.1f} ppm is over the 5 ppm at which it holds the film back.",
                when="now",
                amount=fraction.change_l,
                amount_unit="L",
            )
        )
        if ph:
            share = un_ionised_share(ph[1], temperature[1])
            causes.append(
                Finding(
                    title="Too much ammonia.",
                    detail=f"{ammonia_now:.1f} mg N/L at pH {ph[1]:g} holds {ammonia_now * share:.2f} mg/L of free ammonia, which slows the nitrite step.",
                )
            )
    newest = max((r for r in log.readings), key=lambda r: r.day, default=None)
    if newest and "nitrite" in newest.off_scale:
        actions.append(
            Action(
                do="dilute-test",
                title="Read nitrite diluted",
                detail="One part tank water to three of nitrite-free water, then multiply by four.",
                reason="Off the scale says only 'this or more': a fall would not show.",
                when="tomorrow",
            )
        )
        causes.append(
            Finding(title="Nitrite is off the kit.", detail="It reads its top step or more; dilute to see it move.")
        )
    high_nitrite = nitrite is not None and nitrite[1] >= 0.98 * HIGH_NITRITE_MG_N_L
    since = log.day_now - newest.day if newest else None
    if newest is None or ammonia is None or nitrite is None:
        what = "ammonia, nitrite, nitrate, pH and KH" if newest is None else "ammonia and nitrite"
        actions.insert(
            0,
            Action(
                do="test",
                title=f"Test {what}",
                detail="Before anything is dosed: this is the baseline everything later is read against.",
                reason="Tap water can bring ammonia, nitrate or no alkalinity at all.",
                when="now",
            ),
        )
        if not log.doses and log.method == "measured-ammonia":
            actions.append(_dose_action(log, 0.0, w))
    elif ready.ready:
        before = nitrate[1] if nitrate else 0.0
        target = 20 * NITROGEN_SHARE["NO3"]
        share = 0.6
        if before > target:
            share = max(
                0.6,
                min(
                    water_change(
                        WaterChangeQuestion(
                            net_l=log.net_l,
                            solutes=[Solute(what="nitrate", now_ppm=min(before, 1e4), target_ppm=target)],
                        )
                    ).change_share,
                    0.9,
                ),
            )
        litres = w.line("V", "share × net litres", f"{share:.2f} × {log.net_l:.0f}", share * log.net_l, "L", "practice")
        actions.insert(
            0,
            Action(
                do="change-water",
                title=f"Change {litres:.0f} L",
                detail="Treated for chlorine and at the animals' temperature; turn the heater back to their range.",
                reason="One large change takes out the nitrate the doses made.",
                when="now",
                amount=litres,
                amount_unit="L",
                caution="Unplug heater and filter first; plug them back in after.",
            ),
        )
        actions.append(
            Action(
                do="add-animals",
                title="Add the first animals",
                detail="Within a few days of the change, a part of the stock at a time; test daily for a week.",
                reason="The film starves without them.",
                when="tomorrow",
            )
        )
        actions.append(
            Action(
                do="feed-film",
                title="If they come later, keep dosing",
                detail=f"{log.challenge_mg_n_l():.2g} mg N/L every two or three days, and change again the day before.",
                reason="An unfed film fades.",
                when="later",
            )
        )
    else:
        due = since is not None and since >= (1.0 if ammonia_now <= 1.5 else 2.0) - 0.05
        blocked = low_kh or acid or high_nitrite or not log.filter_running or ammonia_now > HIGH_AMMONIA_MG_N_L
        if high_nitrite and not low_kh:
            actions.append(
                Action(
                    do="stop-dosing",
                    title="No ammonia for now",
                    detail="Until nitrite reads under 5 ppm.",
                    reason="More ammonia only becomes more nitrite.",
                    when="now",
                )
            )
        elif blocked:
            actions.append(
                Action(
                    do="wait",
                    title="Then wait with ammonia",
                    detail="No dose until it reads under 1 ppm and the water is put right.",
                    reason="A stopped film cannot use it.",
                    when="later",
                )
            )
        if since is not None and due and since > 0.6:
            actions.insert(
                0 if not actions else len(actions),
                Action(
                    do="test",
                    title="Test ammonia and nitrite",
                    detail="And pH and KH if it is three days since.",
                    reason=f"The last test is {since:.0f} day{'s' if round(since) != 1 else ''} old.",
                    when="now",
                ),
            )
        elif (not blocked and ammonia_now <= TOP_UP_UNDER_MG_N_L and log.method == "measured-ammonia") or (
            log.method == "seeded-filter" and ammonia_now <= ZERO_AMMONIA_MG_N_L and not log.doses
        ):
            actions.append(_dose_action(log, ammonia_now, w))
        if not any(a.do == "test" for a in actions):
            wait = 1 if ammonia_now <= 1.5 or low_kh else 2
            actions.append(
                Action(
                    do="test",
                    title="Test again" if wait > 1 else "Test tomorrow",
                    detail=f"Ammonia and nitrite{', pH and KH' if low_kh or acid else ''}, in {'two days' if wait > 1 else 'a day'}.",
                    reason="A dose gone in a day is the measure.",
                    when="tomorrow" if wait == 1 else "later",
                )
            )
    if not actions:
        actions.append(
            Action(do="wait", title="Wait", detail="Nothing to do today.", reason="The film is working.", when="now")
        )
    stalled = (stuck and bool(causes)) or (low_kh and acid)
    if stalled and low_kh:
        verdict = (
            "It has stalled: the film has used up the alkalinity and the water turned acid."
            if acid
            else "It is about to stall: the alkalinity is nearly used up."
        )
    elif stalled:
        verdict = f"It has stalled: {causes[0].title[0].lower()}{causes[0].title[1:]}"
    elif ready.ready:
        verdict = "You may add fish: the filter clears what they will make."
    elif not log.readings:
        verdict = "Nothing is known yet: begin with a test of the bare water."
    elif nitrite and nitrite[1] > ZERO_NITRITE_MG_N_L:
        verdict = (
            "On its way: ammonia is being turned into nitrite, and the second half of the film is growing."
            if ammonia_now < 1.5 or nitrite[1] > 0.3
            else "It has begun: the first nitrite shows."
        )
    elif nitrate and nitrate[1] > 1 and ammonia_now <= ZERO_AMMONIA_MG_N_L:
        verdict = "Nearly there: both read zero. Now prove it with a dose."
    else:
        verdict = "Waiting for the first film: nothing has used the ammonia yet, which is usual in the first one to three weeks."
    animals = (
        "Add the first animals after the large change."
        if ready.ready
        else f"Animals: not yet. {ready.verdict.removeprefix('Not yet, because ')[0].upper()}{ready.verdict.removeprefix('Not yet, because ')[1:]}"
    )
    return CycleAdviceAnswer(
        verdict=verdict,
        working=w.lines,
        first=actions[0],
        then=actions[1:],
        stalled=stalled,
        causes=causes if stalled or not log.filter_running else [],
        ruled_out=ruled if stalled else [],
        animals=animals,
    )
