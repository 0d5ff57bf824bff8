"""Notes, changes, doses and cleanings as CSV: a keeper's own notebook taken in, and out again the same."""

import pytest

from tests.api.conftest import Keeper

NOTEBOOK = """at,what,amount,unit,filter,text
2025-03-02T09:00,note,,,,"Cloudy, so tested: all zero"
2025-03-09T09:00,change,25,%,,
2025-03-16T09:00,change,10,L,,untreated
2025-03-17T09:00,dose,2,ppm,,
2025-03-20T09:00,cleaning,50,%,,squeezed in old water
2025-03-27T09:00,cleaning,,,,rinsed at the tap
"""


def send(keeper: Keeper, tank: int, text: str):
    return keeper.client.post(
        f"/api/tanks/{tank}/happenings.csv",
        data=text,
        content_type="text/csv",
        headers={"X-CSRF-Token": keeper.token},
    )


def tank_of(keeper: Keeper) -> int:
    return keeper.send("POST", "/api/tanks", {"name": "Shed", "stands": "running", "litres": 100}).json["id"]


def bodies(keeper: Keeper, tank: int) -> list[dict]:
    state = keeper.get(f"/api/tanks/{tank}").json["state"]
    return [e["body"] for e in (*state["doses"], *state["changes"], *state["events"])]


def test_a_notebook_is_taken_in_once_and_comes_out_as_it_went_in(keeper) -> None:
    tank = tank_of(keeper)
    assert send(keeper, tank, NOTEBOOK).json == {"added": 6, "known": 0}
    assert send(keeper, tank, NOTEBOOK).json == {"added": 0, "known": 6}
    found = bodies(keeper, tank)
    assert [round(b["share"], 3) for b in found if b["kind"] == "water-change"] == [0.25, 0.1]
    assert [b["treated"] for b in found if b["kind"] == "water-change"] == [True, False]
    # 2 ppm as the ion are 1.55 mg N/L.
    assert [round(b["raise_mg_n_l"], 2) for b in found if b["kind"] == "dose"] == [1.55]
    assert [(b["what"], b["share"]) for b in found if b["kind"] == "media-work"] == [("rinsed", 0.5), ("rinsed-tap", 1)]
    out = keeper.get(f"/api/tanks/{tank}/happenings.csv")
    assert out.mimetype == "text/csv"
    again = tank_of(keeper)
    assert send(keeper, again, out.get_data(as_text=True)).json == {"added": 6, "known": 0}
    assert bodies(keeper, again)[0]["raise_mg_n_l"] == pytest.approx(found[0]["raise_mg_n_l"], rel=1e-5)
    assert bodies(keeper, again)[1]["share"] == found[1]["share"]


def test_each_faulty_row_is_named_and_nothing_is_written(keeper) -> None:
    tank = tank_of(keeper)
    faulty = (
        NOTEBOOK
        + "yesterday,note,,,,odd\n2025-04-01T09:00,fed,,,,\n2025-04-02T09:00,change,much,%,,\n"
        + "2025-04-03T09:00,change,400,L,,\n2025-04-04T09:00,change,2,buckets,,\n2025-04-05T09:00,change,150,%,,\n"
        + "2025-04-06T09:00,cleaning,50,%,Nothing such,\n2025-04-07T09:00,note,,,,\n"
    )
    answer = send(keeper, tank, faulty)
    assert answer.status_code == 422
    where = [e["where"] for e in answer.json["errors"]]
    assert [w.split(",")[0] for w in where] == [f"line {n}" for n in range(8, 16)]
    assert bodies(keeper, tank) == []


def test_a_note_that_a_table_would_run_is_written_as_words(keeper) -> None:
    tank = tank_of(keeper)
    keeper.write(tank, {"kind": "note", "text": "=cmd|' /C calc'!A0"})
    assert "'=cmd" in keeper.get(f"/api/tanks/{tank}/happenings.csv").get_data(as_text=True)


def test_anothers_tank_is_not_found(keeper, sign_up) -> None:
    tank = tank_of(keeper)
    other = sign_up()
    assert other.get(f"/api/tanks/{tank}/happenings.csv").status_code == 404
    assert send(other, tank, NOTEBOOK).status_code == 404
