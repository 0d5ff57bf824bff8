"""Due dates: leak checks, flow tests, service, spare sponges."""

from datetime import timedelta

import pytest

from reedmace.logbook.care.due import due
from tests.support.fitting import BY_ID, CHOSEN, NOW, state_of


@pytest.mark.parametrize(("filter_id", "kind"), [("millrace-60", "hangon"), ("millpond-60", "sump")])
def test_every_kind_that_can_leak_comes_back_three_times(filter_id: str, kind: str) -> None:
    chosen = (30, {"kind": "filter-plan", "chosen": BY_ID[filter_id].model_dump()})
    found = {
        d.key: d.at - NOW for d in due(state_of(chosen, (0, {"kind": "step-done", "step_id": f"{kind}-power"})), NOW)
    }
    waits = [found[f"{kind}-leak-{when}"] for when in ("5", "60", "day")]
    assert waits == [timedelta(minutes=5), timedelta(hours=1), timedelta(days=1)]


def test_leak_checks_come_back_five_minutes_an_hour_and_a_day_after_power() -> None:
    found = {d.key: d.at for d in due(state_of(CHOSEN, (0, {"kind": "step-done", "step_id": "canister-power"})), NOW)}
    assert found["canister-leak-5"] == NOW + timedelta(minutes=5)
    assert found["canister-leak-60"] == NOW + timedelta(hours=1)
    assert found["canister-leak-day"] == NOW + timedelta(days=1)
    ticked = state_of(
        CHOSEN,
        (1, {"kind": "step-done", "step_id": "canister-power"}),
        (0.9, {"kind": "step-done", "step_id": "canister-leak-5"}),
    )
    assert "canister-leak-5" not in {d.key for d in due(ticked, NOW)}


def test_the_flow_is_due_monthly_and_service_by_its_own_fade() -> None:
    def test_of(seconds: float) -> dict:
        return {"kind": "flow-test", "container_l": 5, "times_s": [seconds], "computed_lph": 750}

    s = state_of(CHOSEN, (120, test_of(24)), (60, test_of(27)), (10, test_of(31)))
    found = {d.key: d for d in due(s, NOW)}
    assert found["flow-test"].at == NOW + timedelta(days=20)
    assert NOW - timedelta(days=60) < found["service"].at < NOW + timedelta(days=90)
    rinsed = state_of(CHOSEN, (120, test_of(24)), (60, test_of(27)), (5, {"kind": "media-work", "what": "rinsed"}))
    assert "service" not in {d.key for d in due(rinsed, NOW)}


def test_a_spare_sponge_is_due_a_month_after_it_went_in() -> None:
    s = state_of(CHOSEN, (20, {"kind": "media-work", "what": "seeding-started", "text": "A"}))
    assert next(d for d in due(s, NOW) if d.key.startswith("seed")).at == NOW + timedelta(days=10)
