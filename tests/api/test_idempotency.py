"""Creating calls with a key: one thing made however often it is sent, also at once."""

import json
from concurrent.futures import ThreadPoolExecutor

import brotli


def make(keeper, key: str | None, body=None, path: str = "/api/tanks"):
    headers = {} if key is None else {"Idempotency-Key": key}
    return keeper.send("POST", path, body or {"name": "Once"}, headers=headers)


def count(keeper) -> int:
    return len(keeper.get("/api/tanks").json["tanks"])


def test_the_same_key_makes_one_tank_and_answers_alike(keeper) -> None:
    first, again = make(keeper, "a-tank-of-mine"), make(keeper, "a-tank-of-mine")
    assert (first.status_code, again.status_code) == (201, 201)
    assert again.json == first.json
    assert count(keeper) == 1
    assert make(keeper, "another-of-mine").json["id"] != first.json["id"]
    assert make(keeper, None).status_code == 201
    assert count(keeper) == 3


def test_an_answer_that_goes_out_compressed_is_kept_as_it_was_made(keeper) -> None:
    headers = {"Idempotency-Key": "compressed-one", "Accept-Encoding": "br, gzip"}
    many = {"name": "Once", "litres": 60, "stands": "running"}
    first = keeper.send("POST", "/api/tanks", many, headers=headers)
    assert first.headers["Content-Encoding"] == "br"
    again = make(keeper, "compressed-one", many)
    assert json.loads(brotli.decompress(first.data)) == again.json
    assert count(keeper) == 1


def test_a_key_is_one_account_s_own(sign_up) -> None:
    mine, other = sign_up(), sign_up()
    assert make(mine, "shared-key").json["id"] != make(other, "shared-key").json["id"]


def test_what_was_refused_may_be_sent_again_with_the_same_key(keeper) -> None:
    assert make(keeper, "put-right-later", {"name": ""}).status_code == 422
    assert make(keeper, "put-right-later").status_code == 201
    assert count(keeper) == 1


def test_a_key_for_another_call_or_no_key_at_all_is_refused(keeper) -> None:
    assert make(keeper, "only-one-use").status_code == 201
    assert make(keeper, "only-one-use", {"name": "Room"}, "/api/rooms").status_code == 409
    assert make(keeper, "short").status_code == 400
    assert make(keeper, "x" * 65).status_code == 400
    assert count(keeper) == 1


def test_many_at_once_make_one(keeper) -> None:
    def go(_: int) -> int:
        client = keeper.client.application.test_client()
        client._cookies = keeper.client._cookies
        return client.post(
            "/api/tanks",
            json={"name": "Once"},
            headers={"X-CSRF-Token": keeper.token, "Idempotency-Key": "all-at-once"},
        ).status_code

    with ThreadPoolExecutor(6) as pool:
        statuses = list(pool.map(go, range(6)))
    # A call that crossed another is answered so that it can be sent again.
    assert set(statuses) <= {201, 409, 503}
    assert 201 in statuses
    assert count(keeper) == 1
    assert make(keeper, "all-at-once").status_code == 201
    assert count(keeper) == 1
