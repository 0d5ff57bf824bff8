"""An account's own affairs: address, everything out, closed; tanks copied, archived, removed and brought back."""

import pytest

from reedmace.database import connect
from reedmace.store import Accounts

PASSWORD = "three words apart"


@pytest.fixture
def keeper(visitor, request):
    one = visitor()
    one.email = f"own-{abs(hash(request.node.name)) % 10**8}@yard.example"
    one.enter("POST", "/api/account", {"email": one.email, "password": PASSWORD})
    return one


def names(keeper) -> list[str]:
    return [t["name"] for t in keeper.get("/api/tanks").json["tanks"]]


def test_an_address_is_changed_with_the_password_alone(keeper, visitor) -> None:
    wrong = keeper.send("PUT", "/api/account/email", {"password": "not it at all", "email": "x@yard.example"})
    assert wrong.status_code == 403
    assert "not it at all" not in wrong.text
    new = f"new-{keeper.email}"
    assert keeper.send("PUT", "/api/account/email", {"password": PASSWORD, "email": new}).json["email"] == new
    other = visitor()
    assert other.enter("POST", "/api/session", {"email": keeper.email, "password": PASSWORD}).status_code == 401
    assert other.enter("POST", "/api/session", {"email": new, "password": PASSWORD}).status_code == 201


def recover(visitor, email: str, code: str, new: str = "another three words"):
    return visitor().enter("POST", "/api/session/recover", {"email": email, "code": code, "password": new})


def test_a_recovery_code_lets_its_keeper_back_in_once(visitor) -> None:
    one, email = visitor(), "lost@yard.example"
    codes = one.enter("POST", "/api/account", {"email": email, "password": PASSWORD}).json["recovery_codes"]
    assert len(set(codes)) == 8
    # Written down in capitals and without its dashes.
    back = recover(visitor, email, codes[0].upper().replace("-", " "))
    assert back.status_code == 201
    assert back.json["email"] == email
    assert one.get("/api/tanks").status_code == 401
    assert visitor().enter("POST", "/api/session", {"email": email, "password": PASSWORD}).status_code == 401
    again = recover(visitor, email, codes[0])
    assert again.status_code == 401
    assert codes[0] not in again.text
    assert recover(visitor, email, codes[1]).status_code == 201


def test_a_code_opens_no_other_account_and_guesses_are_counted(keeper, visitor) -> None:
    other, email = visitor(), f"other-{keeper.email}"
    codes = other.enter("POST", "/api/account", {"email": email, "password": PASSWORD}).json["recovery_codes"]
    assert recover(visitor, keeper.email, codes[0]).status_code == 401
    assert recover(visitor, "nobody@yard.example", codes[0]).status_code == 401
    for _ in range(7):
        assert recover(visitor, keeper.email, "aaaa-bbbb-cccc").status_code == 401
    assert recover(visitor, keeper.email, "aaaa-bbbb-cccc").status_code == 429


def test_new_codes_take_the_password_and_make_the_old_worthless(visitor) -> None:
    one, email = visitor(), "codes@yard.example"
    old = one.enter("POST", "/api/account", {"email": email, "password": PASSWORD}).json["recovery_codes"]
    assert one.get("/api/account/recovery-codes").json == {"left_count": 8}
    assert one.send("POST", "/api/account/recovery-codes", {"password": "not it at all"}).status_code == 403
    new = one.send("POST", "/api/account/recovery-codes", {"password": PASSWORD}).json["recovery_codes"]
    assert not set(old) & set(new)
    assert recover(visitor, email, old[0]).status_code == 401
    assert recover(visitor, email, new[0]).status_code == 201


def test_an_address_another_keeper_has_is_refused(keeper, visitor) -> None:
    taken = visitor()
    taken.enter("POST", "/api/account", {"email": f"taken-{keeper.email}", "password": PASSWORD})
    answer = keeper.send("PUT", "/api/account/email", {"password": PASSWORD, "email": f"taken-{keeper.email}"})
    assert answer.status_code == 409
    assert keeper.get("/api/session").json["email"] == keeper.email


def test_a_closed_account_leaves_nothing_behind(keeper, visitor, app) -> None:
    tank = keeper.tank("Gone")
    keeper.write(tank, {"kind": "note", "text": "Last"})
    assert keeper.send("POST", "/api/account/close", {"password": "not it at all"}).status_code == 403
    assert names(keeper) == ["Gone"]
    closed = keeper.send("POST", "/api/account/close", {"password": PASSWORD})
    assert closed.json["signed_in"] is False
    assert keeper.get("/api/tanks").status_code == 401
    assert visitor().enter("POST", "/api/session", {"email": keeper.email, "password": PASSWORD}).status_code == 401
    database = connect(app.config["REEDMACE"].database_url)
    with database.connection_context():
        assert database.execute_sql("SELECT COUNT(*) FROM tank WHERE id = %s", (tank,)).fetchone() == (0,)
        assert database.execute_sql("SELECT COUNT(*) FROM entry WHERE tank_id = %s", (tank,)).fetchone() == (0,)


def test_everything_goes_out_in_one_file_and_each_bundle_comes_back(keeper) -> None:
    for name in ("One", "Two"):
        keeper.write(keeper.tank(name), {"kind": "note", "text": f"Of {name}"})
    aside = keeper.get("/api/tanks").json["tanks"][0]["id"]
    keeper.send("POST", f"/api/tanks/{aside}/archive")
    whole = keeper.get("/api/account/everything.json").json
    assert sorted(b["tank"] for b in whole["bundles"]) == ["One", "Two"]
    for bundle in whole["bundles"]:
        assert keeper.send("POST", "/api/bundles", bundle).status_code == 201
    assert names(keeper) == ["Two", "Two", "One"]


def test_a_removed_tank_can_be_brought_back_for_a_day(keeper, app) -> None:
    tank = keeper.tank("Hall")
    keeper.write(tank, {"kind": "note", "text": "Kept"})
    keeper.send("DELETE", f"/api/tanks/{tank}")
    assert names(keeper) == []
    assert keeper.get(f"/api/tanks/{tank}").status_code == 404
    assert keeper.send("POST", f"/api/tanks/{tank}/entries", {}).status_code in (404, 422)
    row = keeper.get("/api/tanks/aside").json["tanks"][0]
    assert (row["name"], row["how"]) == ("Hall", "removed")
    assert row["until"] is not None
    assert keeper.send("POST", f"/api/tanks/{tank}/back").status_code == 200
    assert names(keeper) == ["Hall"]
    assert len(keeper.get(f"/api/tanks/{tank}/entries").json["entries"]) == 1
    keeper.send("DELETE", f"/api/tanks/{tank}")
    # A day later it is gone for good.
    database = connect(app.config["REEDMACE"].database_url)
    with database.connection_context():
        database.execute_sql("UPDATE tank SET aside_at = aside_at - INTERVAL 25 HOUR WHERE id = %s", (tank,))
    assert keeper.send("POST", f"/api/tanks/{tank}/back").status_code == 404
    assert keeper.get("/api/tanks/aside").json["tanks"] == []


def test_an_archived_tank_is_out_of_sight_and_still_readable(keeper) -> None:
    tank = keeper.tank("Old")
    put = keeper.send("POST", f"/api/tanks/{tank}/archive")
    assert put.status_code == 200
    assert [(t["name"], t["how"]) for t in put.json["tanks"]] == [("Old", "archived")]
    assert names(keeper) == []
    assert keeper.get("/api/today").json["rows"] == []
    assert keeper.get(f"/api/tanks/{tank}").status_code == 200
    assert keeper.get("/api/tanks/aside").json["tanks"][0]["until"] is None
    keeper.send("POST", f"/api/tanks/{tank}/back")
    assert names(keeper) == ["Old"]


def test_a_copy_takes_the_plans_and_leaves_the_history(keeper) -> None:
    tank = keeper.tank("Left")
    keeper.write(tank, {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45}})
    keeper.write(tank, {"kind": "reading", "ammonia_ppm": 1})
    made = keeper.send("POST", f"/api/tanks/{tank}/copy", {"name": "Right"})
    assert made.status_code == 201
    state = keeper.get(f"/api/tanks/{made.json['id']}").json["state"]
    assert state["plans"]["tank"]["tank"]["length_cm"] == 90
    assert state["readings"] == []


def test_another_keepers_tank_can_be_neither_copied_nor_put_aside(keeper, visitor) -> None:
    tank = keeper.tank("Mine")
    other = visitor()
    other.enter("POST", "/api/account", {"email": f"other-{keeper.email}", "password": PASSWORD})
    for path, body in (("archive", None), ("back", None), ("copy", {"name": "Theirs"})):
        assert other.send("POST", f"/api/tanks/{tank}/{path}", body).status_code == 404
    assert other.send("DELETE", f"/api/tanks/{tank}").status_code == 404
    assert names(keeper) == ["Mine"]


def test_the_one_who_runs_it_gives_a_new_password(keeper, visitor, app) -> None:
    database = connect(app.config["REEDMACE"].database_url)
    with database.connection_context():
        accounts = Accounts(database)
        assert not accounts.reset("nobody@yard.example", "whatever that is")
        assert accounts.reset(keeper.email.upper(), "a new one entirely")
    assert keeper.get("/api/tanks").status_code == 401
    assert visitor().enter("POST", "/api/session", {"email": keeper.email, "password": PASSWORD}).status_code == 401
    again = {"email": keeper.email, "password": "a new one entirely"}
    assert visitor().enter("POST", "/api/session", again).status_code == 201
