"""Failed attempts: whose are counted together, how long they pause, and who comes in all the same."""

from concurrent.futures import ThreadPoolExecutor
from datetime import datetime, timedelta

import pytest

from reedmace.store.attempts import FAILURES_HERE, FAILURES_PER_ACCOUNT, Limit, network_of


@pytest.mark.parametrize(
    ("address", "network"),
    [
        ("192.0.2.7", "192.0.2.7"),
        ("::ffff:192.0.2.7", "192.0.2.7"),
        ("2001:db8:1:2::1", "2001:db8:1:2::/64"),
        ("2001:db8:1:2:ffff::9", "2001:db8:1:2::/64"),
        ("not an address", "not an address"),
    ],
)
def test_one_household_counts_as_one(address: str, network: str) -> None:
    assert network_of(address) == network


WINDOW_S = 900


def test_a_wait_that_grows_begins_at_four_seconds_and_ends_at_the_window() -> None:
    limit, now = Limit("everywhere", 40, grows=True), datetime(2026, 1, 1)
    waits = [limit.wait_s([now] * count, now) for count in (39, 40, 41, 44, 60)]
    assert waits == [0, 4, 8, 64, WINDOW_S]
    # The wait over, another try is let in.
    assert limit.wait_s([now - timedelta(seconds=4)] * 40, now) == 0


def test_many_at_once_do_not_pass_a_limit_together(sign_up, app) -> None:
    email = sign_up().get("/api/session").json["email"]

    def guess(n: int) -> int:
        client = app.test_client()
        token = client.get("/api/session").json["csrf_token"]
        body = {"email": email, "password": f"guess number {n}"}
        return client.post("/api/session", json=body, headers={"X-CSRF-Token": token}).status_code

    with ThreadPoolExecutor(12) as pool:
        statuses = list(pool.map(guess, range(40)))
    assert set(statuses) == {401, 429}
    assert statuses.count(401) <= FAILURES_HERE


def test_a_keeper_comes_in_on_a_known_device_whatever_others_guess(visitor, app) -> None:
    keeper, password = visitor(), "three words apart"
    email = "swift@yard.example"
    assert keeper.enter("POST", "/api/account", {"email": email, "password": password}).status_code == 201
    keeper.enter("DELETE", "/api/session", None)
    # From 40 addresses, one guess each, until the account is guessed at from everywhere.
    for n in range(FAILURES_PER_ACCOUNT + 6):
        other = visitor()
        other.client.environ_base["REMOTE_ADDR"] = f"198.51.100.{n}"
        other.send("POST", "/api/session", {"email": email, "password": "not this one"})
    stranger = visitor()
    stranger.client.environ_base["REMOTE_ADDR"] = "203.0.113.9"
    refused = stranger.send("POST", "/api/session", {"email": email, "password": password})
    assert refused.status_code == 429
    assert 0 < int(refused.headers["Retry-After"]) <= WINDOW_S
    assert keeper.enter("POST", "/api/session", {"email": email, "password": password}).status_code == 201
    keeper.enter("DELETE", "/api/session", None)
    # A device is no way round the limit: its own guesses count.
    for _ in range(FAILURES_HERE):
        assert keeper.send("POST", "/api/session", {"email": email, "password": "not this one"}).status_code == 401
    assert keeper.send("POST", "/api/session", {"email": email, "password": password}).status_code == 429
