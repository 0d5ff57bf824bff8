"""The one bar: what proves a film, what does not, and what makes a proof fall. Each case once passed and must not."""

from typing import Any

import pytest

from reedmace.core.cycle import (
    CycleAdviceQuestion,
    CycleForecastQuestion,
    CycleLog,
    CycleReadinessQuestion,
    cycle_advice,
    cycle_forecast,
    cycle_readiness,
)
from reedmace.core.cycle.record.log import KitSteps, LoggedBetween
from reedmace.core.cycle.record.proof import checked_doses
from reedmace.core.cycle.record.proven_load import proven_capacity
from tests.support.cycling import NI, A, proving

PROVED: dict[str, Any] = {
    "net_l": 100,
    "day_now": 40.1,
    "planned_load_mg_n_l_day": 0.4,
    "animals": [{"species_id": "zebra-danio", "count": 8}],
    **proving(38, 39, kh_dkh=5, ph=7.4),
}
ZERO = {"ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0}


def log_of(**changes: Any) -> CycleLog:
    return CycleLog.model_validate(PROVED | changes)


def is_ready(log: CycleLog) -> bool:
    return cycle_readiness(CycleReadinessQuestion(log=log)).ready


def says_add(log: CycleLog) -> bool:
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    return any(a.do == "add-animals" for a in [advice.first, *advice.then]) or "may add" in advice.verdict.lower()


def test_two_seen_doses_gone_in_a_day_on_two_days_are_a_proof() -> None:
    log = log_of()
    assert is_ready(log)
    assert says_add(log)
    assert proven_capacity(log) == pytest.approx(0.6)


def test_on_the_day_it_is_ready_every_date_is_today() -> None:
    answer = cycle_forecast(CycleForecastQuestion(log=log_of(), draws=200))
    assert (answer.pass_day_p10, answer.pass_day_p50, answer.pass_day_p90) == (40.1, 40.1, 40.1)


def seen_on(*days: float) -> list[dict[str, Any]]:
    """Tests of two doses cleared on days 39 and 40, and doses seen on some days alone."""
    cleared = [r for r in PROVED["readings"] if "nitrite_mg_n_l" in r]
    return sorted([*cleared, *({"day": d + 0.04, "ammonia_mg_n_l": 0.6} for d in days)], key=lambda r: r["day"])


@pytest.mark.parametrize(
    ("days", "holds"),
    [((38,), True), ((39,), True), ((28,), True), ((20,), False), ((), False)],
    ids=["the first seen", "the second seen", "one seen ten days ago", "one seen weeks ago", "none seen"],
)
def test_doses_of_a_bottle_that_was_seen_to_work_are_believed(days: tuple[float, ...], holds: bool) -> None:
    assert is_ready(log_of(readings=seen_on(*days))) is holds


def test_two_cleared_doses_may_stand_a_week_apart_if_none_failed_between() -> None:
    doses = [*PROVED["doses"][:-2], *({"day": d, "raise_mg_n_l": 0.6} for d in (33.0, 36.0, 39.0))]
    first = [{"day": 33.04, "ammonia_mg_n_l": 0.6}, {"day": 34.0, **ZERO}]
    last = [{"day": 40.0, **ZERO, "nitrate_mg_n_l": 10.0}]
    assert is_ready(log_of(doses=doses, readings=[*first, *last]))
    failed = [{"day": 37.0, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": NI}]
    assert not is_ready(log_of(doses=doses, readings=[*first, *failed, *last]))


def without_sight(log: dict[str, Any]) -> list[dict[str, Any]]:
    return [r for r in log["readings"] if "nitrite_mg_n_l" in r]


LAST = PROVED["readings"][-1]
DUD = [{"day": d + 0.95, **ZERO} for d in range(20, 41)]
NOT_PROVED = {
    "a dud bottle: zeros from the first day, no dose ever seen": {
        "readings": DUD,
        "doses": [{"day": float(d), "raise_mg_n_l": 0.6} for d in range(20, 40)],
    },
    "the last two doses were not seen in the water": {"readings": without_sight(PROVED)},
    "two doses half an hour apart": {
        "doses": [*PROVED["doses"][:-2], {"day": 39.0, "raise_mg_n_l": 0.6}, {"day": 39.02, "raise_mg_n_l": 0.6}],
        "readings": [{"day": 39.06, "ammonia_mg_n_l": 1.2}, LAST],
    },
    "a large change between dose and test": {"changes": [{"day": 39.5, "share": 0.7}]},
    "a failed test a day after, and a zero seven hours later": {
        "day_now": 40.35,
        "readings": [
            *PROVED["readings"][:-1],
            {"day": 40.0, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": NI},
            {**LAST, "day": 40.3},
        ],
    },
    "no nitrite test": {
        "readings": [{k: v for k, v in r.items() if k != "nitrite_mg_n_l"} for r in PROVED["readings"]]
    },
    "all media replaced since": {"day_now": 40.3, "media": [{"day": 40.2, "what": "replaced", "share": 1}]},
    "media dried since": {"day_now": 40.3, "media": [{"day": 40.2, "what": "dried", "share": 0.5}]},
    "a closed canister off for most of a day": {
        "day_now": 41.2,
        "filter_closed": True,
        "outages": [{"day": 40.2, "hours": 18}],
        "readings": [*PROVED["readings"], {"day": 41.1, **ZERO}],
    },
    "much untreated chloraminated water": {
        "day_now": 40.4,
        "tap": {"chlorine": "chloramine"},
        "changes": [{"day": 40.2, "share": 0.8, "treated": False}],
    },
    "KH near nothing and pH near six": {
        "day_now": 40.4,
        "readings": [*PROVED["readings"], {"day": 40.3, **ZERO, "kh_dkh": 0.2, "ph": 6.0}],
    },
    "the water stood at 38 °C": {
        "day_now": 40.4,
        "readings": [*PROVED["readings"], {"day": 40.3, **ZERO, "temperature_c": 38}],
    },
    "one dose alone": {"doses": PROVED["doses"][:-1], "readings": PROVED["readings"][:2], "day_now": 39.1},
    "an expired kit": {"kit": KitSteps(expired=True)},
    "never fed before, so no film can have come": {"doses": PROVED["doses"][-2:]},
    "fish food of no grams": {
        "method": "fish-food",
        "doses": [],
        "food_g_day": 0,
        "readings": [{"day": float(d), **ZERO, "nitrate_mg_n_l": float(d - 29)} for d in range(30, 41)],
    },
    "two nitrates that merely differ": {
        "method": "fish-food",
        "doses": [],
        "food_g_day": 1,
        "readings": [{"day": float(d), **ZERO, "nitrate_mg_n_l": 2.2 + 0.02 * d} for d in range(30, 41)],
    },
}


@pytest.mark.parametrize("changes", NOT_PROVED.values(), ids=NOT_PROVED.keys())
def test_this_proves_nothing(changes: dict[str, Any]) -> None:
    log = log_of(**changes)
    assert not is_ready(log)
    assert not says_add(log)


def test_with_animals_in_a_film_lost_yesterday_begins_the_week_anew() -> None:
    week = [{"day": float(d), **ZERO, "nitrate_mg_n_l": 2.0 if d < 45 else 4.6} for d in range(41, 50)]
    log = log_of(day_now=49.1, readings=week, animals_in_mg_n_l_day=0.1, stocked_day=40.5, doses=[])
    assert is_ready(log)
    lost = log.model_copy(update={"media": log_of(media=[{"day": 48.2, "what": "replaced", "share": 1}]).media})
    assert not is_ready(lost)
    assert not says_add(lost)
    assert any("media were replaced" in m for m in cycle_readiness(CycleReadinessQuestion(log=lost)).missing)


def test_a_fallen_proof_says_what_happened_and_how_to_make_it_again() -> None:
    log = log_of(day_now=40.3, media=[{"day": 40.2, "what": "replaced", "share": 1}])
    missing = " ".join(cycle_readiness(CycleReadinessQuestion(log=log)).missing)
    assert "media were replaced on day 40" in missing
    assert "two doses of 0.64 ppm" in missing.replace("0.65", "0.64")


def test_a_squeeze_in_tank_water_leaves_the_proof_standing() -> None:
    assert is_ready(log_of(day_now=40.3, media=[{"day": 40.2, "what": "rinsed-tank-water", "share": 0.5}]))


def test_portions_of_one_dose_are_one_dose() -> None:
    half = [{"day": 39.0, "raise_mg_n_l": 0.3}, {"day": 39.02, "raise_mg_n_l": 0.3}]
    tried = checked_doses(log_of(doses=[*PROVED["doses"][:-1], *half]))
    assert tried[-1].raise_mg_n_l == pytest.approx(0.6)


@pytest.mark.parametrize(
    ("steps", "read_ppm", "zero"),
    [([0, 0.25, 1], 0.12, True), ([0, 0.25, 1], 0.15, False), ([0, 0.05, 0.1], 0.04, False), ([0, 1, 4], 0.3, False)],
    ids=[
        "half a usual step",
        "over half a usual step",
        "a finer kit sees more",
        "a coarse kit is not believed further",
    ],
)
def test_zero_is_the_keepers_own_kits(steps: list[float], read_ppm: float, zero: bool) -> None:
    kit = KitSteps(ammonia_ppm=steps)
    assert (read_ppm * A <= kit.zero_mg_n_l("ammonia")) is zero


def test_the_advice_asks_to_see_the_dose_and_then_for_its_test_a_day_later() -> None:
    before = [{"day": 37.5, **ZERO}]
    dosed = log_of(day_now=38.05, doses=PROVED["doses"][:-1], readings=before)
    advice = cycle_advice(CycleAdviceQuestion(log=dosed))
    assert (advice.first.do, advice.first.when) == ("test", "now")
    assert "in the water" in advice.first.title
    # The next dose comes from a bottle that is known to work.
    again = cycle_advice(CycleAdviceQuestion(log=log_of(day_now=39.05, readings=PROVED["readings"][:2])))
    assert "in the water" not in again.first.title
    seen = log_of(day_now=39.06, readings=PROVED["readings"][:3])
    after = cycle_advice(CycleAdviceQuestion(log=seen))
    assert "20 to 28 hours" in after.first.detail
    assert all(a.do != "dose-ammonia" for a in [after.first, *after.then])


def test_the_planned_animals_never_turn_a_proven_tank_into_an_emergency() -> None:
    readings = [*PROVED["readings"], {"day": 41.0, **ZERO, "nitrate_mg_n_l": 4.0, "ph": 7.4, "kh_dkh": 5}]
    log = log_of(
        day_now=41.1,
        readings=readings,
        stocked_day=40.5,
        animals_in_mg_n_l_day=0.4,
        present=[{"species_id": "zebra-danio", "count": 8}],
    )
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert all(a.do != "change-water" for a in [advice.first, *advice.then])


def bottle(**more: Any) -> CycleLog:
    doses = [{"day": d, "raise_mg_n_l": 1.5} for d in (0, 2)]
    nitrate = more.pop("nitrate", None)
    readings = [
        {"day": d, **ZERO, "nitrate_mg_n_l": None if nitrate is None else nitrate * d} for d in (0.5, 1, 2.2, 3, 4)
    ]
    return CycleLog.model_validate({"net_l": 100, "day_now": 4.1, "doses": doses, "readings": readings, **more})


SEEDED = {"method": "seeded-filter"}


@pytest.mark.parametrize(
    ("log", "dead"),
    [
        (bottle(nitrate=0.0), True),
        (bottle(), True),
        (bottle(nitrate=0.0, **SEEDED), True),
        (bottle(**SEEDED), False),
        (bottle(nitrate=0.6, **SEEDED), False),
        (bottle(nitrate=0.0, plants="many"), False),
        (bottle(nitrate=0.0, doses=[]), False),
        (bottle(readings=[{"day": 0.0, **ZERO}]), False),
        (bottle(readings=[{"day": 0.1, "ammonia_mg_n_l": 1.5, "nitrite_mg_n_l": 0.0}, {"day": 1, **ZERO}]), False),
    ],
    ids=[
        "zeros, no nitrate",
        "zeros, nitrate untested",
        "seeded, no nitrate",
        "seeded, nitrate untested",
        "nitrate rises",
        "plants may have had it",
        "never dosed",
        "tested before the dose",
        "seen once",
    ],
)
def test_a_dead_bottle_is_named_and_nothing_else_is(log: CycleLog, dead: bool) -> None:
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert ("the bottle is dead, or the kit is" in advice.verdict) == dead
    fresh = [a for a in [advice.first, *advice.then] if "from a fresh bottle" in a.title]
    assert len(fresh) == dead
    # Zeros from which nobody can tell are never told as ammonia that waits for a film.
    if log.doses and log.readings[-1].day > 1 and log.plants == "none":
        assert "nothing has used the ammonia" not in advice.verdict


def test_with_a_kit_that_may_be_dead_ammonia_is_not_piled_up() -> None:
    doses = [{"day": d, "raise_mg_n_l": 1.5} for d in (0, 1, 2)]
    advice = cycle_advice(CycleAdviceQuestion(log=bottle(doses=doses)))
    actions = [advice.first, *advice.then]
    assert "Try another kit" in advice.first.title
    assert not any(a.do == "dose-ammonia" for a in actions)


def test_a_range_that_touches_poison_is_no_zero_and_proves_nothing() -> None:
    log = log_of()
    assert is_ready(log)
    doubt = {"what": "nitrite", "low_mg_n_l": 0.0, "high_mg_n_l": 0.5 * NI}
    unsure = [r.model_copy(update={"between": [LoggedBetween(**doubt)]}) for r in log.readings]
    assert not is_ready(log.model_copy(update={"readings": unsure}))
    surely = [
        r.model_copy(update={"between": [LoggedBetween(**doubt | {"high_mg_n_l": 0.1 * NI})]}) for r in log.readings
    ]
    assert is_ready(log.model_copy(update={"readings": surely}))
