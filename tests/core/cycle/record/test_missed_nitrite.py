"""Whether ammonia that went is missed by the nitrite test."""

from typing import Any

import pytest

from reedmace.core.cycle import (
    CycleAdviceQuestion,
    CycleLog,
    CycleReadinessQuestion,
    cycle_advice,
    cycle_readiness,
)
from reedmace.core.cycle.record.kit_checks import nitrite_is_missed, nitrite_never_showed

A, NI, NA = 0.7765, 0.3045, 0.2259


def log_of(rows: list[dict[str, Any]], **more: Any) -> CycleLog:
    """Animals in from the first day, looked at on the day of the last test."""
    read = [{"nitrite_mg_n_l": 0.0, "nitrate_mg_n_l": 0.0, "ph": 7.4, "kh_dkh": 5.0} | row for row in rows]
    return CycleLog.model_validate(
        {
            "net_l": 100,
            "day_now": rows[-1]["day"] + 0.01,
            "method": "animals-in",
            "stocked_day": 0.0,
            "animals_in_mg_n_l_day": 0.1,
            "present": [{"species_id": "zebra-danio", "count": 6}],
            "readings": read,
            **more,
        }
    )


def falling(*ppm: float, **last: Any) -> list[dict[str, Any]]:
    """A test a day from day 14 on, by ammonia in ppm; last: what the last test read besides."""
    rows: list[dict[str, Any]] = [{"day": 14.0 + n, "ammonia_mg_n_l": A * value} for n, value in enumerate(ppm)]
    return [*rows[:-1], rows[-1] | last]


GONE = falling(1, 1, 0.5, 0.25, 0.25)


def test_ammonia_that_went_and_shows_nowhere_is_missed_by_the_nitrite_test() -> None:
    log = log_of(GONE)
    assert nitrite_is_missed(log)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert "do not trust the nitrite test" in advice.verdict
    assert (advice.first.do, advice.first.share) == ("change-water", pytest.approx(1 / 3))
    assert any("another kit" in action.title for action in advice.then)


def test_ammonia_read_once_but_high_went_all_the_same() -> None:
    assert nitrite_is_missed(log_of(falling(2, 0, 0)))
    assert not nitrite_is_missed(log_of(falling(1, 0, 0)))


def test_a_second_kit_that_reads_none_as_well_ends_the_doubt() -> None:
    assert not nitrite_is_missed(log_of([*GONE[:-1], GONE[-1] | {"other_kit": True}]))
    # One that read ammonia alone says nothing of nitrite.
    assert nitrite_is_missed(log_of([*GONE[:-1], GONE[-1] | {"other_kit": True, "nitrite_mg_n_l": None}]))


@pytest.mark.parametrize(
    ("rows", "more"),
    [
        (falling(1, 1, 0.5, 0.25, 0.25, nitrite_mg_n_l=NI), {}),
        (falling(1, 1, 0.5, 0.25, 0.25, nitrate_mg_n_l=5 * NA), {}),
        (falling(0.5, 0.25, 0.5, 0.25, 0.25), {}),
        (falling(0.5, 0.5, 1, 0.25, 0.25), {}),
        (falling(0.5, 0.5, 0, 0), {}),
        (falling(1, 1, 0.5, 1), {}),
        (GONE, {"changes": [{"day": 15.5, "share": 0.7}]}),
        (GONE, {"plants": "many"}),
        (GONE, {"helpers": ["seed-media"]}),
        (GONE, {"present": [], "stocked_day": None, "animals_in_mg_n_l_day": 0, "method": "measured-ammonia"}),
    ],
    ids=["nitrite shows", "nitrate shows", "a step up and down", "one high test", "two steps, half a step wide",
         "one low test", "water was changed", "plants took it",
         "media came with their film", "no animals"],
)  # fmt: skip
def test_nothing_is_missed_where_it_is_seen_or_explained(rows: list[dict[str, Any]], more: dict[str, Any]) -> None:
    assert not nitrite_is_missed(log_of(rows, **more))


def test_nitrite_seen_once_beside_ammonia_and_never_again_went_with_it() -> None:
    # Ammonia half gone alone tells nothing; with the nitrite that was read at its height too much is missing.
    rows = falling(0.5, 0.5, 0.25, 0.25)
    assert not nitrite_is_missed(log_of(rows))
    rows[1] |= {"nitrite_mg_n_l": NI}
    assert nitrite_is_missed(log_of(rows))
    # At the usual end of a cycle nitrite goes alone, long after the ammonia.
    ended = falling(0, 0, 0, 0)
    ended[0] |= {"nitrite_mg_n_l": 2 * NI}
    assert not nitrite_is_missed(log_of(ended))


def read(*pairs: tuple[float, float]) -> list[dict[str, Any]]:
    """A test a day from day 14 on, by (ammonia, nitrite) in steps of a usual kit."""
    return [
        {"day": 14.0 + n, "ammonia_mg_n_l": A / 4 * a, "nitrite_mg_n_l": NI / 4 * i} for n, (a, i) in enumerate(pairs)
    ]


def test_nitrite_read_well_and_none_a_day_later_is_not_gone_while_ammonia_stands() -> None:
    fell = read((2, 0), (2, 4), (2, 0))
    assert nitrite_is_missed(log_of(fell))
    assert nitrite_is_missed(log_of(read((2, 2), (2, 2), (2, 0))))
    # Two steps read once may be one too many, and none one too few.
    assert not nitrite_is_missed(log_of(read((2, 0), (2, 2), (2, 0))))
    # Ammonia that is gone as well may have gone with it: the film is ready.
    assert not nitrite_is_missed(log_of(read((1, 0), (1, 4), (0, 0))))
    # A change that explains it; a fall step by step; one step alone; after four days nothing new shows.
    assert not nitrite_is_missed(log_of(fell, changes=[{"day": 15.1, "share": 0.8}]))
    assert not nitrite_is_missed(log_of(read((2, 2), (2, 1), (2, 0))))
    assert not nitrite_is_missed(log_of(read((2, 0), (2, 1), (2, 0))))
    assert not nitrite_is_missed(log_of([*fell, {"day": 20.0, "ammonia_mg_n_l": A / 2}]))


def test_a_nitrite_test_that_flickers_is_doubted_for_ten_days_though_no_ammonia_is_left() -> None:
    flickers = read((1, 4), (0, 0), (0, 8), (0, 0))
    assert nitrite_is_missed(log_of(flickers))
    assert nitrite_is_missed(log_of([*flickers, {"day": 23.0, "ammonia_mg_n_l": 0.0}]))
    assert not nitrite_is_missed(log_of([*flickers, {"day": 25.0, "ammonia_mg_n_l": 0.0}]))
    assert not nitrite_is_missed(log_of([*flickers, {"day": 18.0, "ammonia_mg_n_l": 0.0, "other_kit": True}]))


def test_a_kit_with_one_step_only_is_no_fault() -> None:
    log = log_of(read((2, 4), (2, 0)), kit={"nitrite_ppm": [0, 1]})
    assert not nitrite_is_missed(log)


def test_ammonia_that_went_counts_from_wherever_its_fall_began() -> None:
    # A higher reading long before, which changes explain, hides nothing.
    earlier = [{"day": 10.0, "ammonia_mg_n_l": 2 * A}]
    rows = [*earlier, *falling(1, 1, 0, 0)]
    assert nitrite_is_missed(log_of(rows, changes=[{"day": 10.1, "share": 0.8}]))


def test_animals_that_join_later_do_not_hide_what_went_before() -> None:
    assert nitrite_is_missed(log_of(GONE, stocked_day=17.9))
    assert nitrite_is_missed(log_of(read((2, 0), (2, 4), (2, 0)), stocked_day=15.9))


def test_what_a_dose_became_is_no_sign() -> None:
    assert not nitrite_is_missed(log_of(GONE, doses=[{"day": 17.0, "raise_mg_n_l": 1.0}]))


def test_the_doubt_outlives_the_changes_it_asks_for_until_nitrite_is_read_or_ten_days_are_over() -> None:
    later = [{"day": 19.0 + n, "ammonia_mg_n_l": 0.0} for n in range(7)]
    daily = [{"day": 18.5 + n, "share": 1 / 3} for n in range(7)]
    assert nitrite_is_missed(log_of([*GONE, *later], changes=daily))
    unread = [*GONE, *later[:-1], later[-1] | {"nitrite_mg_n_l": None}]
    advice = cycle_advice(CycleAdviceQuestion(log=log_of(unread, changes=daily[:-1])))
    assert "do not trust the nitrite test" in advice.verdict
    seen = [*GONE, *later[:-1], later[-1] | {"nitrite_mg_n_l": NI}]
    assert not nitrite_is_missed(log_of(seen, changes=daily))
    over = [{"day": 30.0 + n, "ammonia_mg_n_l": 0.0} for n in range(2)]
    assert not nitrite_is_missed(log_of([*GONE, *over]))


def test_water_changed_today_is_not_changed_again() -> None:
    log = log_of([*GONE[:-1], GONE[-1] | {"day": 18.0}], changes=[{"day": 18.005, "share": 0.34}], day_now=18.02)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert advice.first.do == "test-other-kit"


def cycling(*rows: tuple[float, float, float], **more: Any) -> CycleLog:
    """An empty tank dosed once to 2 ppm, by (day, ammonia in ppm, nitrite in ppm)."""
    readings = [{"day": day, "ammonia_mg_n_l": A * a, "nitrite_mg_n_l": NI * i} for day, a, i in rows]
    doses = [{"day": 0.0, "raise_mg_n_l": 2 * A}]
    kept = {"net_l": 100, "day_now": rows[-1][0] + 0.01, "method": "measured-ammonia", "doses": doses}
    return CycleLog.model_validate({**kept, "readings": readings, **more})


STOOD = [(0.1, 2, 0), (3, 2, 0), (6, 2, 0), (8, 1, 0), (10, 0.25, 0), (11, 0, 0)]


def test_in_an_empty_tank_nitrite_that_never_showed_proves_nothing() -> None:
    log = cycling(*STOOD)
    assert nitrite_never_showed(log)
    advice = cycle_advice(CycleAdviceQuestion(log=log))
    assert "ever showed what became of it" in advice.verdict
    assert advice.first.do == "test-other-kit"
    doses = [{"day": d, "raise_mg_n_l": 2 * A} for d in (0.0, 11.1, 12.2)]
    rows = [*STOOD, (11.2, 2, 0), (12.1, 0, 0), (12.3, 2, 0), (13.2, 0, 0)]
    ready = cycle_readiness(CycleReadinessQuestion(log=cycling(*rows, doses=doses)))
    assert not ready.ready
    assert any("nitrite never showed" in why for why in ready.missing)


def test_animals_that_came_all_the_same_do_not_end_that_doubt() -> None:
    rows = [*STOOD, (12, 0, 0), (13, 0, 0)]
    came = {"stocked_day": 11.5, "animals_in_mg_n_l_day": 0.1, "present": [{"species_id": "zebra-danio", "count": 6}]}
    readings = [{**r.model_dump(), "ph": 7.4, "kh_dkh": 5.0} for r in cycling(*rows).readings]
    advice = cycle_advice(CycleAdviceQuestion(log=cycling(*rows, **came, readings=readings)))
    assert "do not trust the nitrite test" in advice.verdict
    assert advice.first.do == "change-water"


@pytest.mark.parametrize(
    "log",
    [
        cycling(*STOOD[:4]),
        cycling(*STOOD[:3], (8, 1, 0.5), *STOOD[4:]),
        cycling((0.1, 2, 0), (1, 1, 0), (2, 0, 0), (3, 0, 0)),
        cycling(*STOOD[:3], (25, 0, 0), (26, 0, 0)),
        cycling(*STOOD, helpers=["seed-media"]),
        cycling(*STOOD, plants="many"),
        cycling(*STOOD, changes=[{"day": 7.0, "share": 0.9}]),
    ],
    ids=["it stands yet", "it showed", "film came at once", "nobody looked", "media came with their film",
         "plants took it", "water was changed"],
)  # fmt: skip
def test_nitrite_nobody_could_have_seen_is_no_fault_of_the_kit(log: CycleLog) -> None:
    assert not nitrite_never_showed(log)


def test_nitrate_or_another_kit_ends_that_doubt() -> None:
    log = cycling(*STOOD)
    rose = [r.model_copy(update={"nitrate_mg_n_l": NA * (40 if r.day > 6 else 0)}) for r in log.readings]
    assert not nitrite_never_showed(log.model_copy(update={"readings": rose}))
    other = [*log.readings[:-1], log.readings[-1].model_copy(update={"other_kit": True})]
    assert not nitrite_never_showed(log.model_copy(update={"readings": other}))
