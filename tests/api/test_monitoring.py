"""Watching over a running Reedmace: alive, ready, counted; numbers instead of names in every log line."""

import json
import logging

import pytest
from prometheus_client.parser import text_string_to_metric_families

from reedmace.api import Settings, create_app
from tests.api.conftest import Keeper


@pytest.fixture
def watched(mariadb):
    """An application whose operator asked for counts."""
    return create_app(Settings(database_url=mariadb.app_url, secret_key="t", metrics=True)).test_client()


def counted(client, sample: str, **labels: str) -> float:
    families = text_string_to_metric_families(client.get("/metrics").text)
    return sum(s.value for f in families for s in f.samples if s.name == sample and labels.items() <= s.labels.items())


def test_it_is_alive_without_a_database_and_ready_only_with_one(watched) -> None:
    assert watched.get("/healthz").text == "alive\n"
    assert watched.get("/readyz").status_code == 200
    lost = create_app(Settings(database_url="mysql://nobody@127.0.0.1:1/none", secret_key="t")).test_client()
    assert lost.get("/healthz").status_code == 200
    answer = lost.get("/readyz")
    assert answer.status_code == 503
    assert answer.headers["Retry-After"]


def test_requests_and_sums_are_counted_by_pattern_and_name(watched) -> None:
    labels = {"route": "/api/tanks/<int:tank_id>", "status": "401"}
    before, sums = (
        counted(watched, "reedmace_requests_total", **labels),
        counted(watched, "reedmace_sum_seconds_count", name="tank-volume"),
    )
    for tank in (7, 8, 9):
        watched.get(f"/api/tanks/{tank}")
    watched.post("/api/compute/tank-volume", json={"length_cm": 90, "width_cm": 40, "height_cm": 45})
    assert counted(watched, "reedmace_requests_total", **labels) == before + 3
    assert counted(watched, "reedmace_sum_seconds_count", name="tank-volume") == sums + 1
    assert "/api/tanks/7" not in watched.get("/metrics").text


def test_counts_are_for_this_machine_and_only_where_they_were_asked_for(watched, app) -> None:
    assert watched.get("/metrics", environ_base={"REMOTE_ADDR": "192.0.2.7"}).status_code == 404
    assert app.test_client().get("/metrics").status_code == 404


def test_a_fault_of_ours_has_a_number_that_stands_in_the_log_and_nothing_of_the_keeper(
    keeper: Keeper, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    import reedmace.api.today as today

    def broken(_: object) -> None:
        raise ZeroDivisionError("the tank of keeper@yard.example")

    monkeypatch.setattr(today, "snapshots", broken)
    with caplog.at_level(logging.WARNING, logger="reedmace.requests"):
        answer = keeper.get("/api/today")
    assert answer.status_code == 500
    line = json.loads(next(r.message for r in caplog.records if r.name == "reedmace.requests"))
    assert line["id"] == answer.json["request_id"] == answer.headers["X-Request-ID"]
    assert line["route"] == "/api/today"
    assert "yard" not in json.dumps(line)


def test_a_proxys_number_is_taken_and_a_strangers_is_not(mariadb, keeper: Keeper) -> None:
    behind = create_app(Settings(database_url=mariadb.app_url, secret_key="t", behind_tls=True)).test_client()
    sent = {"X-Request-ID": "proxy-0123456789"}
    assert behind.get("/healthz", headers=sent).headers["X-Request-ID"] == "proxy-0123456789"
    assert behind.get("/healthz", headers={"X-Request-ID": "a b"}).headers["X-Request-ID"] != "a b"
    assert keeper.client.get("/healthz", headers=sent).headers["X-Request-ID"] != "proxy-0123456789"
