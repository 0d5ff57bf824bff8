"""More than one pair of hands: roles held at every route, entries that say who, invitations good once, links that only
look.
"""

from datetime import UTC, datetime, timedelta

import pytest
import time_machine

from tests.api.test_tanks import READING, TANK_PLAN, address, routes_of_a_tank

STOCK_PLAN = {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 3}]}


def invited(owner, other, role: str):
    """`other` helps in `owner`'s household."""
    url = owner.send("POST", "/api/household/invites", {"role": role}).json["url"]
    token = url.rsplit("/", 1)[1]
    came = other.send("POST", f"/api/invites/{token}")
    assert came.status_code == 201, came.text
    return token


@pytest.fixture
def pair(sign_up):
    """A keeper with a tank and a reading in it, and another account."""
    owner, other = sign_up(), sign_up()
    tank = owner.tank("Landing")
    owner.write(tank, TANK_PLAN)
    owner.write(tank, READING)
    return owner, other, tank


@pytest.mark.parametrize("role", ["reader", "helper", "keeper"])
def test_a_shared_tank_is_on_todays_page_of_every_hand_with_whose_it_is(pair, role: str) -> None:
    owner, other, tank = pair
    assert other.get(f"/api/tanks/{tank}").status_code == 404
    invited(owner, other, role)
    rows = {r["tank"]["id"]: r["tank"] for r in other.get("/api/today").json["rows"]}
    assert rows[tank]["role"] == role
    assert "@" in rows[tank]["of"]
    assert other.get(f"/api/tanks/{tank}").json["tank"]["name"] == "Landing"
    assert owner.get(f"/api/tanks/{tank}").json["tank"]["role"] is None


def test_a_reader_changes_nothing_by_any_route(app, pair) -> None:
    owner, other, tank = pair
    invited(owner, other, "reader")
    before = owner.get(f"/api/tanks/{tank}/entries").json
    bodies = {
        "entries": {"key": "reader-0001", "at": datetime.now(UTC).isoformat(), "body": READING},
        "tank_id>": {"name": "Mine now"},
        "readings/import": {"text": "date,ammonia\n2026-01-01,1\n"},
        "again": {"key": "reader-0002"},
        "pass": {"until": "day"},
        "settings": {"feed": 0},
        "devices": {"name": "Mine now", "kind": "smart-plug"},
        "photo_id>": {"shown": True},
    }
    harmless = ("/views/", "/preview", "/copy", "/cycle")
    tried = 0
    for method, rule in routes_of_a_tank(app):
        if method == "GET" or any(word in rule for word in harmless):
            continue
        body = next((b for end, b in bodies.items() if rule.endswith(end)), None)
        answer = other.send(method, address(rule, tank), body)
        assert answer.status_code in (403, 404, 409, 415, 422), (method, rule, answer.status_code, answer.text)
        tried += 1
    assert tried >= 8
    assert owner.get(f"/api/tanks/{tank}/entries").json == before
    assert owner.get(f"/api/tanks/{tank}").json["tank"]["name"] == "Landing"
    assert owner.get(f"/api/tanks/{tank}/link").json == {"made_at": None}


def test_a_helper_logs_what_was_done_and_the_entry_says_who(pair) -> None:
    owner, other, tank = pair
    invited(owner, other, "helper")
    written = other.write(tank, {"kind": "water-change", "share": 0.25})
    assert written.status_code == 201
    first, *rest = owner.get(f"/api/tanks/{tank}/entries").json["entries"]
    assert first["body"]["kind"] == "water-change"
    assert "@" in first["who"]
    assert all(e["who"] is None for e in rest)


@pytest.mark.parametrize(
    "body", [STOCK_PLAN, TANK_PLAN, {"kind": "situation", "stands": "empty"}], ids=["stock", "tank", "situation"]
)
def test_a_helper_plans_nothing(pair, body: dict) -> None:
    owner, other, tank = pair
    invited(owner, other, "helper")
    answer = other.write(tank, body)
    assert answer.status_code == 403
    assert "another keeper's" in answer.json["detail"]


def test_a_helper_takes_back_a_line_of_its_own_and_none_of_the_keepers(pair) -> None:
    owner, other, tank = pair
    invited(owner, other, "helper")
    theirs = owner.get(f"/api/tanks/{tank}/entries").json["entries"][0]["id"]
    assert other.write(tank, {"kind": "withdrawal"}, supersedes=theirs).status_code == 403
    mine = other.write(tank, {"kind": "note", "text": "fed"}).json["id"]
    assert other.write(tank, {"kind": "withdrawal"}, supersedes=mine).status_code == 201


def test_a_keeper_of_the_household_plans_and_renames_and_gives_nothing_away(pair) -> None:
    owner, other, tank = pair
    invited(owner, other, "keeper")
    assert other.write(tank, STOCK_PLAN).status_code == 201
    assert other.send("PATCH", f"/api/tanks/{tank}", {"name": "Hall"}).status_code == 200
    for method, path in (("DELETE", ""), ("POST", "/archive"), ("POST", "/link"), ("DELETE", "/link")):
        assert other.send(method, f"/api/tanks/{tank}{path}").status_code == 403, (method, path)
    assert owner.get(f"/api/tanks/{tank}").json["tank"]["name"] == "Hall"


def test_one_thing_for_many_tanks_is_refused_whole_where_one_is_only_looked_at(pair) -> None:
    owner, other, tank = pair
    invited(owner, other, "reader")
    own = other.tank("Own")
    many = {"key": "many-hands1", "at": datetime.now(UTC).isoformat(), "tank_ids": [own, tank], "body": READING}
    assert other.send("POST", "/api/entries/many", many).status_code == 403
    assert other.get(f"/api/tanks/{own}/entries").json["entries"] == []


def test_an_invitation_is_good_once_and_for_one(pair, sign_up) -> None:
    owner, other, tank = pair
    token = invited(owner, other, "helper")
    third = sign_up()
    assert third.send("POST", f"/api/invites/{token}").status_code == 404
    assert third.get(f"/api/tanks/{tank}").status_code == 404


def test_an_invitation_taken_back_or_a_week_old_or_ones_own_opens_nothing(pair) -> None:
    owner, other, _ = pair

    def link() -> str:
        return owner.send("POST", "/api/household/invites", {"role": "helper"}).json["url"].rsplit("/", 1)[1]

    gone = link()
    owner.send("DELETE", "/api/household/invites")
    assert other.send("POST", f"/api/invites/{gone}").status_code == 404
    assert owner.send("POST", f"/api/invites/{link()}").status_code == 404
    old = link()
    with time_machine.travel(datetime.now(UTC) + timedelta(days=8)):
        assert other.send("POST", f"/api/invites/{old}").status_code == 404
    seen = other.get(f"/api/invites/{link()}").json
    assert seen["role"] == "helper"
    assert "@" in seen["email"]


@pytest.mark.parametrize("who", ["owner", "helper"])
def test_either_ends_the_helping_and_the_tank_is_gone_from_the_others_page(pair, who: str) -> None:
    owner, other, tank = pair
    invited(owner, other, "helper")
    side = owner if who == "owner" else other
    household = side.get("/api/household").json
    hand = household["members" if who == "owner" else "helps"][0]
    assert side.send("DELETE", f"/api/household/members/{hand['id']}").status_code == 200
    assert other.get(f"/api/tanks/{tank}").status_code == 404
    assert other.write(tank, READING).status_code == 404
    assert side.send("DELETE", f"/api/household/members/{hand['id']}").status_code == 404


def test_a_stranger_cannot_end_anothers_helping(pair, sign_up) -> None:
    owner, other, tank = pair
    invited(owner, other, "helper")
    hand = owner.get("/api/household").json["members"][0]
    assert sign_up().send("DELETE", f"/api/household/members/{hand['id']}").status_code == 404
    assert other.get(f"/api/tanks/{tank}").status_code == 200


def test_too_many_open_invitations_are_refused(keeper) -> None:
    codes = [keeper.send("POST", "/api/household/invites", {"role": "reader"}).status_code for _ in range(22)]
    assert codes[:20] == [201] * 20
    assert codes[20:] == [409, 409]


def look_token(owner, tank: int) -> str:
    return owner.send("POST", f"/api/tanks/{tank}/link").json["url"].rsplit("/", 1)[1]


def test_anyone_with_the_link_sees_how_a_tank_stands_and_nothing_of_its_keeper(pair, visitor) -> None:
    owner, _, tank = pair
    answer = visitor().get(f"/api/look/{look_token(owner, tank)}")
    assert answer.status_code == 200
    assert answer.json["name"] == "Landing"
    assert answer.json["tests"][0]["reading"]["ammonia_ppm"] == READING["ammonia_ppm"]
    assert "@" not in answer.text
    assert answer.headers["X-Robots-Tag"].startswith("noindex")
    assert answer.headers["Referrer-Policy"] == "no-referrer"


def test_a_link_made_anew_revoked_or_of_a_tank_put_aside_opens_nothing(pair, visitor) -> None:
    owner, _, tank = pair
    first = look_token(owner, tank)
    second = look_token(owner, tank)
    assert visitor().get(f"/api/look/{first}").status_code == 404
    assert visitor().get(f"/api/look/{second}").status_code == 200
    owner.send("POST", f"/api/tanks/{tank}/archive")
    assert visitor().get(f"/api/look/{second}").status_code == 404
    owner.send("POST", f"/api/tanks/{tank}/back")
    owner.send("DELETE", f"/api/tanks/{tank}/link")
    assert visitor().get(f"/api/look/{second}").status_code == 404


def test_who_tries_links_by_the_dozen_is_paused(pair, visitor) -> None:
    owner, _, tank = pair
    good = look_token(owner, tank)
    guess = visitor()
    with time_machine.travel(datetime.now(UTC) + timedelta(days=40)):
        codes = {
            guess.client.get(f"/api/look/{n:032d}", environ_base={"REMOTE_ADDR": "203.0.113.77"}).status_code
            for n in range(80)
        }
        assert codes == {404, 429}
        # A right link opens all the same, here and elsewhere.
        assert guess.client.get(f"/api/look/{good}", environ_base={"REMOTE_ADDR": "203.0.113.77"}).status_code == 200
        assert guess.client.get(f"/api/look/{good}", environ_base={"REMOTE_ADDR": "203.0.113.78"}).status_code == 200


def test_what_a_hand_wrote_stays_when_it_leaves_and_says_so(pair) -> None:
    owner, other, tank = pair
    invited(owner, other, "helper")
    other.write(tank, {"kind": "note", "text": "fed"})
    assert other.send("POST", "/api/account/close", {"password": "reed and water"}).status_code == 200
    first = owner.get(f"/api/tanks/{tank}/entries").json["entries"][0]
    assert first["who"] == "someone who has left"
    assert owner.get("/api/household").json["members"] == []


def test_a_hand_s_devices_end_with_its_right(sign_up) -> None:
    owner, hand = sign_up(), sign_up()
    tank = owner.tank()
    token = owner.send("POST", "/api/household/invites", {"role": "keeper"}).json["url"].rsplit("/", 1)[1]
    assert hand.send("POST", f"/api/invites/{token}").status_code == 201
    made = hand.send("POST", f"/api/tanks/{tank}/devices", {"name": "Probe", "kind": "thermometer"})
    own = owner.send("POST", f"/api/tanks/{tank}/devices", {"name": "Own", "kind": "thermometer"})
    assert (made.status_code, own.status_code) == (201, 201)

    def writes(token: str) -> int:
        headers = {"Authorization": f"Bearer {token}"}
        reading = {"key": f"read-{token[:20]}", "at": datetime.now(UTC).isoformat(), "temperature_c": 24}
        return owner.client.post("/api/device/readings", json=reading, headers=headers).status_code

    assert writes(made.json["token"]) == 201
    (member,) = owner.get("/api/household").json["members"]
    assert owner.send("DELETE", f"/api/household/members/{member['id']}").status_code == 200
    assert writes(made.json["token"]) == 401
    assert writes(own.json["token"]) == 201
