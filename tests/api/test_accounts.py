"""Accounts, sessions, and what protects them."""

from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta

import peewee
import pytest
import time_machine

from reedmace.api import Settings, create_app
from reedmace.database import connect, migrate
from reedmace.store import Accounts, Tanks, TooManyAttempts, sweep
from reedmace.store.accounts import GUESTS_AN_HOUR

PASSWORD = "reed and water"


def test_sign_up_sign_out_and_in_again(visitor) -> None:
    keeper = visitor()
    assert (
        keeper.enter("POST", "/api/account", {"email": "Anew@Yard.example", "password": PASSWORD}).json["email"]
        == "anew@yard.example"
    )
    keeper.enter("DELETE", "/api/session", None)
    assert keeper.get("/api/session").json["signed_in"] is False
    assert keeper.get("/api/tanks").status_code == 401
    assert keeper.enter("POST", "/api/session", {"email": "anew@yard.example", "password": PASSWORD}).status_code == 201
    assert keeper.get("/api/tanks").status_code == 200


def test_signing_out_ends_it_on_the_server_and_a_late_answer_brings_nothing_back(app, sign_up) -> None:
    keeper, other = sign_up(), app.test_client()
    cookie = keeper.client.get_cookie("reedmace").value
    # What a page still loading would set: no answer but a sign-in hands the cookie out again.
    assert "Set-Cookie" not in keeper.get("/api/tanks").headers
    keeper.enter("DELETE", "/api/session", None)
    other.set_cookie("reedmace", cookie)
    assert other.get("/api/session").json["signed_in"] is False
    assert other.get("/api/tanks").status_code == 401


def test_one_browser_signed_out_leaves_the_other_signed_in(visitor, sign_up) -> None:
    here = sign_up()
    email = here.get("/api/session").json["email"]
    there = visitor()
    there.enter("POST", "/api/session", {"email": email, "password": PASSWORD})
    here.enter("DELETE", "/api/session", None)
    assert there.get("/api/tanks").status_code == 200
    with time_machine.travel(datetime.now(UTC) + timedelta(days=61)):
        assert there.get("/api/tanks").status_code == 401


def test_tables_half_made_by_a_killed_start_are_finished_by_the_next(mariadb) -> None:
    mariadb._sql("CREATE DATABASE half; GRANT ALL ON half.* TO 'reedmace_owner'@'127.0.0.1';")
    half = connect(mariadb.owner_url.rsplit("/", 1)[0] + "/half")
    names = migrate(half)
    with half.connection_context():
        # As a kill leaves it: the first tables made, the later ones not, and nothing noted as done.
        for table in ("device", "entry", "migratehistory"):
            half.execute_sql(f"DROP TABLE {table}")
    assert migrate(half) == names
    with half.connection_context():
        assert {"account", "entry", "tank", "device", "signed_in"} <= set(half.get_tables())
    assert migrate(half) == []


def test_a_version_before_the_newest_tables_goes_on_with_them(mariadb) -> None:
    mariadb._sql("CREATE DATABASE newer; GRANT ALL ON newer.* TO 'reedmace_owner'@'127.0.0.1';")
    newer = connect(mariadb.owner_url.rsplit("/", 1)[0] + "/newer")
    migrate(newer)
    with newer.connection_context():
        # As a machine of a later version leaves it that was upgraded first.
        newer.execute_sql("ALTER TABLE tank ADD COLUMN later INT NOT NULL DEFAULT 0")
        newer.execute_sql("INSERT INTO migratehistory (name, migrated_at) VALUES ('999_later', NOW())")
    assert migrate(newer) == []
    with newer.connection_context():
        keeper = Accounts(newer).sign_up("still@here.example", PASSWORD, datetime(2026, 11, 27))
        assert Tanks(newer, keeper.id).make("Under the old version", datetime.now(UTC)).id
    newer.close_all()


def test_a_wrong_password_and_an_unknown_address_look_alike(visitor, sign_up) -> None:
    known = sign_up().get("/api/session").json["email"]
    answers = [
        visitor().send("POST", "/api/session", {"email": e, "password": "not this one"}).json
        for e in (known, "nobody@yard.example")
    ]
    assert answers[0] == answers[1]
    assert answers[0]["status"] == 401


def test_an_address_has_one_account(visitor, sign_up) -> None:
    email = sign_up().get("/api/session").json["email"]
    response = visitor().send("POST", "/api/account", {"email": email.upper(), "password": PASSWORD})
    assert response.status_code == 409


@pytest.mark.parametrize(
    ("body", "where"),
    [
        ({"email": "no-at", "password": PASSWORD}, "email"),
        ({"email": "a@b.example", "password": "short"}, "password"),
        ({"email": "a@b.example"}, "password"),
    ],
)
def test_sign_up_refuses_what_it_cannot_use_and_says_where(visitor, body: dict, where: str) -> None:
    response = visitor().send("POST", "/api/account", body)
    assert response.status_code == 422
    assert where in {e["where"] for e in response.json["errors"]}


def test_a_new_password_ends_other_sessions_and_keeps_this_one(visitor, sign_up) -> None:
    here = sign_up()
    email = here.get("/api/session").json["email"]
    there = visitor()
    there.enter("POST", "/api/session", {"email": email, "password": PASSWORD})
    assert here.enter("PUT", "/api/account/password", {"old": "wrong", "new": "another one here"}).status_code == 403
    assert here.enter("PUT", "/api/account/password", {"old": PASSWORD, "new": "another one here"}).status_code == 200
    assert here.get("/api/tanks").status_code == 200
    assert there.get("/api/tanks").status_code == 401
    assert visitor().enter("POST", "/api/session", {"email": email, "password": PASSWORD}).status_code == 401


def test_sign_in_pauses_after_eight_failures_and_opens_again(visitor, sign_up) -> None:
    email = sign_up().get("/api/session").json["email"]
    with time_machine.travel("2027-03-01T10:00:00Z", tick=True) as clock:
        for _ in range(8):
            assert visitor().send("POST", "/api/session", {"email": email, "password": "guess"}).status_code == 401
        paused = visitor().send("POST", "/api/session", {"email": email, "password": PASSWORD})
        assert paused.status_code == 429
        assert 0 < int(paused.headers["Retry-After"]) <= 900
        clock.shift(timedelta(minutes=16))
        assert visitor().send("POST", "/api/session", {"email": email, "password": PASSWORD}).status_code == 201


def test_passwords_are_kept_as_argon2id(mariadb, keeper) -> None:
    database = connect(mariadb.owner_url)
    with database.connection_context():
        rows = list(database.execute_sql("SELECT email, password_hash FROM account"))
    # A visitor of the demo has no address and no password that opens anything.
    hashes = [kept for email, kept in rows if "@" in email]
    assert hashes
    assert all(h.startswith("$argon2id$") for h in hashes)
    assert all(kept == "none" for email, kept in rows if "@" not in email)


def test_the_session_cookie_is_out_of_scripts_reach(app) -> None:
    cookie = app.test_client().get("/api/session").headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Lax" in cookie
    assert "Secure" not in cookie


def test_behind_tls_the_cookie_is_secure_and_browsers_are_told_to_stay(mariadb) -> None:
    app = create_app(Settings(database_url=mariadb.app_url, secret_key="x", behind_tls=True, quick_hash=True))
    response = app.test_client().get("/api/session", headers={"X-Forwarded-Proto": "https"})
    assert "Secure" in response.headers["Set-Cookie"]
    assert "max-age" in response.headers["Strict-Transport-Security"]


def unsafe_routes(app):
    for rule in app.url_map.iter_rules():
        for method in sorted(rule.methods & {"POST", "PUT", "PATCH", "DELETE"}):
            # What only computes writes nothing, and needs no token.
            if not rule.rule.startswith(("/api/compute", "/api/counter")):
                yield method, rule.rule.replace("<int:tank_id>", "1")


def test_every_change_needs_the_token(app, sign_up) -> None:
    keeper = sign_up()
    routes = list(unsafe_routes(app))
    assert len(routes) >= 9
    for method, path in routes:
        for token in ("", "forged"):
            keeper.token = token
            response = keeper.send(method, path, {})
            if path == "/api/device/readings":
                # It trusts no cookie, only the device's own token: a page cannot be made to send it.
                assert response.status_code in (401, 422)
                continue
            if path.startswith("/api/no-mail/"):
                # A mail program has no cookie; the token of the link is the secret (RFC 8058).
                assert response.status_code == 404
                continue
            assert response.status_code == 403, (method, path)
            assert response.json["title"] == "The page is out of date"


def test_pages_allow_no_outside_host_and_no_inline_script(app) -> None:
    policy = app.test_client().get("/api/session").headers["Content-Security-Policy"]
    script = next(p for p in policy.split(";") if p.strip().startswith("script-src"))
    assert script.strip() == "script-src 'self'"
    assert "http" not in policy


def test_the_demo_door_is_shut_without_the_demo(mariadb) -> None:
    app = create_app(Settings(database_url=mariadb.app_url, secret_key="x", quick_hash=True))
    client = app.test_client()
    state = client.get("/api/session").json
    assert state["demo_open"] is False
    assert client.post("/api/session/demo", headers={"X-CSRF-Token": state["csrf_token"]}).status_code == 404


def test_the_application_may_not_change_or_remove_entries(mariadb) -> None:
    database = connect(mariadb.app_url)
    with database.connection_context():
        for statement in (
            "UPDATE entry SET kind = 'x'",
            "DELETE FROM entry",
            "DROP TABLE entry",
            "CREATE TABLE t (i INT)",
        ):
            with pytest.raises((peewee.OperationalError, peewee.ProgrammingError), match="denied"):
                database.execute_sql(statement)


def guess(visitor, email: str, address: str):
    return visitor().send(
        "POST", "/api/session", {"email": email, "password": "not this one"}, environ_base={"REMOTE_ADDR": address}
    )


def test_a_stranger_elsewhere_does_not_lock_the_keeper_out(visitor, sign_up) -> None:
    email = sign_up().get("/api/session").json["email"]
    with time_machine.travel("2027-05-01T10:00:00Z", tick=True):
        for n in range(8):
            # A household has a whole /64: another address of it is the same sender.
            assert guess(visitor, email, f"2001:db8::{n + 1:x}").status_code == 401
        assert guess(visitor, email, "2001:db8::ffff").status_code == 429
        assert guess(visitor, email, "2001:db8:0:1::1").status_code == 401
        home = visitor().send(
            "POST", "/api/session", {"email": email, "password": PASSWORD}, environ_base={"REMOTE_ADDR": "192.0.2.7"}
        )
        assert home.status_code == 201


def test_guesses_from_many_places_are_paused_too(visitor, sign_up) -> None:
    email = sign_up().get("/api/session").json["email"]
    with time_machine.travel("2027-05-02T10:00:00Z", tick=True):
        answers = [guess(visitor, email, f"198.51.100.{n}").status_code for n in range(45)]
        assert answers[:40] == [401] * 40
        assert answers[40:] == [429] * 5


def test_guesses_at_the_old_password_are_paused(sign_up) -> None:
    keeper = sign_up()
    body = {"old": "not this one", "new": "three quiet herons"}
    answers = [keeper.send("PUT", "/api/account/password", body).status_code for _ in range(9)]
    assert answers == [403] * 8 + [429]


def test_sign_ups_from_one_address_are_counted(mariadb) -> None:
    app = create_app(Settings(database_url=mariadb.app_url, secret_key="x", quick_hash=True, sign_ups_an_hour=3))

    def make(n: int) -> int:
        client = app.test_client()
        token = client.get("/api/session").json["csrf_token"]
        return client.post(
            "/api/account",
            json={"email": f"many{n}@yard.example", "password": PASSWORD},
            headers={"X-CSRF-Token": token},
            environ_base={"REMOTE_ADDR": "203.0.113.9"},
        ).status_code

    assert [make(n) for n in (1, 2, 2, 3)] == [201, 201, 409, 429]


@pytest.mark.parametrize(
    "password", ["password12", "aaaaaaaaaaaa", "1234567890", "abcdefghijkl", "qwertyqwerty", "heron.reed.x"]
)
def test_passwords_guessed_first_are_refused(visitor, password: str) -> None:
    answer = visitor().send("POST", "/api/account", {"email": "heron.reed@yard.example", "password": password})
    assert answer.status_code == 422
    assert "password" not in answer.json["detail"].replace("password:", "")
    assert answer.json["errors"][0]["where"] == "password"


def test_a_guest_whose_first_answer_was_lost_is_found_again_by_its_key(visitor) -> None:
    key = {"key": "0123456789abcdef" * 2}
    first = visitor().enter("POST", "/api/session/guest", key)
    again = visitor()
    assert again.enter("POST", "/api/session/guest", key).json["email"] == first.json["email"]
    other = visitor().enter("POST", "/api/session/guest", {"key": "f" * 32})
    assert other.json["email"] != first.json["email"]
    assert visitor().send("POST", "/api/session/guest", {"key": "short"}).status_code == 422


def test_a_guest_begins_without_an_account_and_keeps_everything_in_place(visitor) -> None:
    guest = visitor()
    begun = guest.enter("POST", "/api/session/guest", {"locale": "en-US"})
    assert begun.status_code == 201
    assert begun.json["units"]["volume"] == "US gal"
    until = datetime.fromisoformat(begun.json["guest_until"])
    assert timedelta(days=29) < until - datetime.now(UTC) <= timedelta(days=30)
    tank = guest.tank("Weir")
    # Asked again, the same guest goes on.
    assert guest.enter("POST", "/api/session/guest", {}).json["email"] == begun.json["email"]
    kept = guest.enter(
        "POST", "/api/account/claim", {"email": f"claimed{tank}@yard.example", "password": "reed and water"}
    )
    assert kept.status_code == 201
    assert kept.json["guest_until"] is None
    assert len(kept.json["recovery_codes"]) == 8
    assert [t["id"] for t in guest.get("/api/tanks").json["tanks"]] == [tank]
    again = guest.enter("POST", "/api/account/claim", {"email": "other@yard.example", "password": "reed and water"})
    assert again.status_code == 409
    elsewhere = visitor()
    signed = elsewhere.enter(
        "POST", "/api/session", {"email": f"claimed{tank}@yard.example", "password": "reed and water"}
    )
    assert signed.status_code == 201
    assert [t["id"] for t in elsewhere.get("/api/tanks").json["tanks"]] == [tank]


def test_nobody_signs_in_as_a_guest_and_a_taken_address_keeps_the_guest(visitor, sign_up) -> None:
    taken = sign_up().get("/api/session").json["email"]
    guest = visitor()
    email = guest.enter("POST", "/api/session/guest", {}).json["email"]
    tank = guest.tank()
    assert visitor().enter("POST", "/api/session", {"email": email, "password": "none"}).status_code in (401, 422)
    refused = guest.enter("POST", "/api/account/claim", {"email": taken, "password": "reed and water"})
    assert refused.status_code == 409
    assert [t["id"] for t in guest.get("/api/tanks").json["tanks"]] == [tank]
    for path, body in (
        ("/api/account/password", {"old": "none", "new": "reed and water"}),
        ("/api/account/email", {"password": "none", "email": "guest@yard.example"}),
    ):
        assert guest.send("PUT", path, body).status_code == 403


def test_guests_from_one_address_are_counted_and_old_ones_forgotten(mariadb) -> None:
    accounts = Accounts(connect(mariadb.app_url))
    now = datetime(2027, 3, 1, 12)
    first = accounts.guest(now - timedelta(days=31), "203.0.113.77")
    for _ in range(GUESTS_AN_HOUR):
        accounts.guest(now, "203.0.113.78")
    sweep(connect(mariadb.app_url), now.replace(tzinfo=UTC))
    assert accounts.by_id(first.id) is None
    with pytest.raises(TooManyAttempts):
        accounts.guest(now, "203.0.113.78")
    accounts.guest(now, "203.0.113.79")


def test_many_sign_ups_at_once_are_whole_and_none_is_refused(app) -> None:
    def sign_up(n: int) -> tuple[int, int, bool]:
        client = app.test_client()
        token = client.get("/api/session").json["csrf_token"]
        made = client.post(
            "/api/account",
            json={"email": f"crowd{n}@yard.example", "password": PASSWORD},
            headers={"X-CSRF-Token": token},
        )
        return made.status_code, len(made.json.get("recovery_codes", [])), client.get("/api/tanks").status_code == 200

    with ThreadPoolExecutor(6) as pool:
        assert set(pool.map(sign_up, range(90))) == {(201, 8, True)}


def test_a_file_of_the_front_end_has_one_address(tmp_path, mariadb) -> None:
    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text("<p>page")
    app = create_app(Settings(database_url=mariadb.app_url, secret_key="x", quick_hash=True, front_end=tmp_path))
    assert app.test_client().get("/assets/../index.html").status_code == 404
