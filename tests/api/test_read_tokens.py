"""Reading tokens: scope, end, revocation; they write nothing and open nothing else."""

import io
import zipfile
from datetime import UTC, datetime, timedelta

import pyarrow.parquet as pq
import pytest
import time_machine


@pytest.fixture
def two(keeper) -> tuple[int, int]:
    """Two tanks, each with a note."""
    ids = keeper.tank("One"), keeper.tank("Other")
    for tank in ids:
        keeper.write(tank, {"kind": "note", "text": f"of {tank}"})
    return ids


def made(keeper, **more) -> dict:
    answer = keeper.send("POST", "/api/account/tokens", {"name": "Notebook", **more})
    assert answer.status_code == 201, answer.json
    return answer.json


def read(visitor, token: str, path: str = "/api/read/tables.zip"):
    return visitor().client.get(path, headers={"Authorization": f"Bearer {token}"})


def tanks_in(answer) -> list[int]:
    packed = zipfile.ZipFile(io.BytesIO(answer.data))
    return pq.read_table(io.BytesIO(packed.read("tanks.parquet")))["tank_id"].to_pylist()


def test_a_token_reads_all_tanks_or_its_one(keeper, visitor, two) -> None:
    assert tanks_in(read(visitor, made(keeper)["token"])) == list(two)
    one = made(keeper, tank_id=two[1], name="Meter")
    assert tanks_in(read(visitor, one["token"])) == [two[1]]
    assert [(t["name"], t["tank"], t["over"]) for t in one["tokens"]] == [
        ("Notebook", None, False), ("Meter", "Other", False)
    ]  # fmt: skip
    assert "token" not in str(keeper.get("/api/account/tokens").json["tokens"][0])


def test_it_opens_nothing_else_and_writes_nothing(keeper, visitor, two) -> None:
    token = made(keeper)["token"]
    for path in ("/api/tanks", f"/api/tanks/{two[0]}", "/api/account/everything.json", "/api/account/tables.zip"):
        assert read(visitor, token, path).status_code == 401
    stranger = visitor()
    body = {"key": "key-by-token", "at": "2026-11-01T10:00:00Z", "body": {"kind": "note", "text": "mine"}}
    headers = {"Authorization": f"Bearer {token}"}
    assert stranger.send("POST", f"/api/tanks/{two[0]}/entries", body, headers=headers).status_code == 401


def test_revoked_over_or_made_up_it_reads_no_more(keeper, visitor, two) -> None:
    first = made(keeper, days=30)
    token = first["token"]
    with time_machine.travel(datetime.now(UTC) + timedelta(days=31)):
        assert read(visitor, token).status_code == 401
    assert read(visitor, token).status_code == 200
    gone = keeper.send("DELETE", f"/api/account/tokens/{first['tokens'][0]['id']}")
    assert gone.json["tokens"] == []
    for bad in (token, "made-up", "", "é"):
        assert read(visitor, bad).status_code == 401
    assert visitor().client.get("/api/read/tables.zip").status_code == 401


def test_anothers_tank_and_token_are_out_of_reach_and_too_many_are_refused(keeper, visitor, two) -> None:
    other = visitor()
    other.enter("POST", "/api/session/guest", {})
    theirs = other.tank("Theirs")
    assert keeper.send("POST", "/api/account/tokens", {"name": "x", "tank_id": theirs}).status_code == 404
    mine = made(keeper)["tokens"][0]["id"]
    assert other.send("DELETE", f"/api/account/tokens/{mine}").status_code == 404
    assert other.get("/api/account/tokens").json["tokens"] == []
    for _ in range(19):
        made(keeper)
    full = keeper.send("POST", "/api/account/tokens", {"name": "x"})
    assert (full.status_code, full.json["title"]) == (409, "Too many tokens")


@pytest.mark.parametrize("wrong", [{"name": " "}, {"days": 0}, {"days": 401}, {"tank_id": 0}, {"may": "write"}])
def test_a_token_that_cannot_be_is_told(keeper, wrong: dict) -> None:
    assert keeper.send("POST", "/api/account/tokens", {"name": "x", **wrong}).status_code == 422


def test_a_tank_put_away_is_read_as_before(keeper, visitor, two) -> None:
    token = made(keeper, tank_id=two[0])["token"]
    keeper.send("POST", f"/api/tanks/{two[0]}/archive")
    assert tanks_in(read(visitor, token)) == [two[0]]
