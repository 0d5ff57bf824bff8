"""Acid water in an empty tank: KH is asked for once, and acted on when it is known."""

from reedmace.core.computations import compute


def first_of(readings: list[dict]) -> tuple[str, list[str]]:
    log = {
        "net_l": 100,
        "day_now": 30,
        "start_kh_dkh": 6,
        "readings": readings,
        "doses": [{"day": day, "raise_mg_n_l": 0.5} for day in range(0, 30, 2)],
    }
    answer = compute("cycle-advice", {"log": log})
    actions = [answer.first, *answer.then]
    return answer.verdict, [f"{a.do}: {a.title}" for a in actions if a.when in ("now", "tonight")]


def read(day: float, **more: float) -> dict:
    return {"day": day, "ammonia_mg_n_l": 0.0, "nitrite_mg_n_l": 0.0, "nitrate_mg_n_l": 18, **more}


def test_acid_water_whose_kh_nobody_read_asks_for_kh() -> None:
    assert "test: Test KH" in first_of([read(30, ph=6.4)])[1]
    assert "test: Test KH" in first_of([read(20, kh_dkh=5), read(30, ph=6.4)])[1]


def test_kh_read_with_it_is_not_asked_for_again_but_raised() -> None:
    _, actions = first_of([read(30, ph=6.4, kh_dkh=2)])
    assert "test: Test KH" not in actions
    assert any(a.startswith("raise-kh") for a in actions)


def test_acid_water_with_kh_enough_gets_no_soda() -> None:
    _, actions = first_of([read(30, ph=6.4, kh_dkh=6)])
    assert not any("KH" in a or "soda" in a for a in actions)


def test_a_film_that_has_worked_is_never_waited_for_again() -> None:
    # Both read zero this morning, a dose went in since: the headline of the first weeks must not come back.
    readings = [{"day": 12, "ammonia_mg_n_l": 0.8, "nitrite_mg_n_l": 1.5, "nitrate_mg_n_l": 5}]
    verdict, _ = first_of([*readings, read(29.9, ph=7.4, kh_dkh=5)])
    assert "Waiting for the first bacteria" not in verdict


def soft(readings: list[dict], **more: object) -> tuple[str, list[str]]:
    """Planned neon tetras in water of KH 1.6 and pH 6.5: verdict and what is to be done now."""
    log = {
        "net_l": 100,
        "day_now": readings[-1]["day"] + 0.01,
        "start_kh_dkh": 1.6,
        "start_ph": 6.5,
        "tap": {"kh_dkh": 1.6, "ph": 6.5},
        "animals": [{"species_id": "neon-tetra", "count": 20}],
        "doses": [{"day": day, "raise_mg_n_l": 0.5} for day in range(0, 20, 2)],
        "readings": readings,
        **more,
    }
    answer = compute("cycle-advice", {"log": log})
    return answer.verdict, [a.do for a in [answer.first, *answer.then] if a.when == "now"]


def test_soft_water_whose_little_kh_is_eaten_is_renewed_and_gets_no_soda() -> None:
    stands = [read(18, ammonia_mg_n_l=0.4, ph=5.8, kh_dkh=1), read(20, ammonia_mg_n_l=0.4, ph=5.8, kh_dkh=1)]
    verdict, now = soft(stands)
    assert "renew some of it" in verdict
    assert now[0] == "change-water"
    assert "raise-kh" not in now
    # Once renewed it is tested again, not changed again.
    assert "change-water" not in soft(stands, changes=[{"day": 20.005, "share": 0.8}])[1]
    # As soft as its tap, or with animals that live in it, or where CO2 is given, it stays.
    assert "change-water" not in soft([read(20, ammonia_mg_n_l=0.4, ph=6.4, kh_dkh=1.6)])[1]
    assert "change-water" not in soft(stands, co2_given=True)[1]
