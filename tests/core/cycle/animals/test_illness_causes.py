"""Each cause of illness: when it speaks, with which evidence, and when it keeps silent."""

import pytest

from reedmace.core.chemistry.tolerance import nitrite_limit_mg_n_l
from reedmace.core.cycle.animals.illness_causes import (
    CAUSE_RULES,
    LATELY_DAYS,
    NEW_DAYS,
    CauseRule,
    IllnessQuestion,
    ammonia_share_of_limit,
    both_tested,
    seen,
)

RULES: dict[str, CauseRule] = {rule.code: rule for rule in CAUSE_RULES}
TESTED = {"ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "since_test_days": 0.5, "ph": 7.4, "temperature_c": 25.0}


def says(code: str, **known: object) -> str | None:
    return RULES[code].speaks(IllnessQuestion(**known))


def test_a_test_counts_for_three_days_and_only_whole() -> None:
    assert both_tested(IllnessQuestion(**TESTED))
    assert both_tested(IllnessQuestion(**{**TESTED, "since_test_days": LATELY_DAYS}))
    assert not both_tested(IllnessQuestion(**{**TESTED, "since_test_days": LATELY_DAYS + 0.1}))
    assert not both_tested(IllnessQuestion(**{**TESTED, "nitrite_mg_n_l": None}))


def test_ammonia_weighs_by_its_free_part() -> None:
    acid = ammonia_share_of_limit(IllnessQuestion(**{**TESTED, "ammonia_mg_n_l": 1.0, "ph": 6.5}))
    alkaline = ammonia_share_of_limit(IllnessQuestion(**{**TESTED, "ammonia_mg_n_l": 1.0, "ph": 8.5}))
    assert 0 < acid < 1 < alkaline
    assert ammonia_share_of_limit(IllnessQuestion(**{**TESTED, "ammonia_mg_n_l": 0.05})) == 0
    assert ammonia_share_of_limit(IllnessQuestion(**{**TESTED, "ammonia_mg_n_l": 5.0, "since_test_days": 9})) == 0


def test_an_untested_ph_is_taken_high_and_said() -> None:
    found = says("ammonia", **{**TESTED, "ammonia_mg_n_l": 4.0, "ph": None})
    assert found is not None
    assert "since none was tested" in found
    assert "none was tested" not in (says("ammonia", **{**TESTED, "ammonia_mg_n_l": 4.0, "ph": 8.0}) or "")


@pytest.mark.parametrize(("share", "code"), [(0.5, "trace"), (2.0, "nitrite")])
def test_nitrite_is_a_trace_under_its_limit_and_a_cause_over_it(share: float, code: str) -> None:
    known = {**TESTED, "nitrite_mg_n_l": share * nitrite_limit_mg_n_l(0)}
    assert {one for one in ("trace", "nitrite") if says(one, **known)} == {code}


def test_salt_lets_more_nitrite_pass() -> None:
    known = {**TESTED, "nitrite_mg_n_l": 1.5 * nitrite_limit_mg_n_l(0)}
    assert says("nitrite", **known)
    assert says("nitrite", **known, salinity_g_kg=35) is None


def test_want_of_oxygen_is_known_by_the_balance_a_stop_or_the_surface() -> None:
    assert "runs short" in (says("oxygen", oxygen_enough=False) or "")
    assert "stood for hours" in (says("oxygen", signs=["drifting"], since_stop_days=1) or "")
    assert "surface" in (says("oxygen", signs=["gasping"], oxygen_enough=True) or "")
    assert says("oxygen", signs=["drifting"], since_stop_days=LATELY_DAYS + 1) is None


def test_warmth_and_cold_are_held_against_what_they_like() -> None:
    liked = {"animals_low_c": 22.0, "animals_high_c": 26.0}
    assert says("warmth", temperature_c=33.0, **liked)
    assert says("cold", temperature_c=13.0, **liked)
    assert says("warmth", temperature_c=25.0, **liked) is None
    assert says("cold", temperature_c=25.0, **liked) is None
    assert says("warmth", temperature_c=33.0) is None


@pytest.mark.parametrize(
    ("before", "now", "speaks"), [(7.8, 7.0, True), (7.0, 7.8, True), (7.4, 7.0, False), (None, 5.4, True)]
)
def test_a_jump_of_ph_or_very_acid_water_speaks(before: float | None, now: float, speaks: bool) -> None:
    assert (says("ph", before_ph=before, ph=now) is not None) == speaks


def test_what_came_from_elsewhere_is_named_for_four_weeks() -> None:
    assert "days after" in (says("parasite", signs=["spots"], since_animals_days=NEW_DAYS) or "")
    later = says("parasite", signs=["spots", "flicking"], since_animals_days=NEW_DAYS + 1)
    assert later == "Seen: spots and rubbing on things."


def test_signs_are_told_only_where_they_were_seen() -> None:
    assert seen(IllnessQuestion(signs=["fuzz", "thin"]), "thin", "spots") == ["thin"]
    quiet = IllnessQuestion(**TESTED, oxygen_enough=True)
    assert [rule.code for rule in CAUSE_RULES if rule.speaks(quiet)] == []


def test_strife_needs_company_that_fights_and_age_a_single_one_with_clean_water() -> None:
    assert says("strife", signs=["wounds"], company_trouble=True)
    assert says("strife", signs=["wounds"]) is None
    assert says("age", **TESTED, ill_count=1, in_count=30)
    assert says("age", **TESTED, ill_count=5, in_count=30) is None
    assert says("age", **{**TESTED, "nitrite_mg_n_l": 0.3}, ill_count=1, in_count=30) is None
    assert says("age", ill_count=1, in_count=30) is None


def test_what_kills_soon_comes_before_what_can_wait() -> None:
    soon = [rule.kills_soon for rule in CAUSE_RULES]
    assert soon == sorted(soon, reverse=True)
    assert not any(rule.kills_soon and not rule.certain for rule in CAUSE_RULES)
