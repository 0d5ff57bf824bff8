"""What a crowd or an attacker sends: answers stay small, a lost database is a 503, connections stay cheap."""

import threading
import time

import peewee
import pytest

from reedmace.api.concurrency import ConcurrencyLimiter
from reedmace.api.problems import ProblemError
from reedmace.database import connect
from reedmace.store.accounts import Accounts


def test_a_question_with_thousands_of_faults_names_fifty(app) -> None:
    body = {f"unknown_{i}": i for i in range(5000)}
    response = app.test_client().post("/api/compute/tank-volume", json=body)
    assert response.status_code == 422
    assert len(response.json["errors"]) == 50
    assert len(response.data) < 30_000


def test_a_connection_lost_between_two_queries_is_a_503_too(keeper, monkeypatch: pytest.MonkeyPatch) -> None:
    def lost(*_: object) -> None:
        raise peewee.InterfaceError(0, "")

    monkeypatch.setattr(Accounts, "find", lost)
    response = keeper.get("/api/tanks")
    assert response.status_code == 503
    assert "Nothing was saved" in response.json["detail"]


@pytest.mark.parametrize(
    ("host", "plain"), [("127.0.0.1", True), ("localhost", True), ("[::1]", True), ("db.example", False)]
)
def test_certificates_are_left_alone_on_this_machine_only(host: str, plain: bool) -> None:
    assert connect(f"mysql://k:p@{host}:3307/reedmace").connect_params["ssl_disabled"] is plain


class Clock:
    """A clock that stands until it is told."""

    def __init__(self) -> None:
        self.s = 0.0

    def __call__(self) -> float:
        return self.s


def test_an_address_that_is_not_signed_in_has_its_share_of_long_sums_and_no_more(app) -> None:
    wall, work = Clock(), Clock()
    slots = ConcurrencyLimiter(now=wall, worked=work)

    def sum_of(seconds: float, address: str) -> int:
        with app.test_request_context(
            "/api/compute/cycle-forecast", method="POST", environ_base={"REMOTE_ADDR": address}
        ):
            try:
                slots.enter()
            except ProblemError as refused:
                return refused.status
            work.s += seconds
            slots.leave(None)
            return 200

    assert [sum_of(11, "203.0.113.5") for _ in range(3)] == [200, 200, 429]
    assert sum_of(1, "203.0.113.6") == 200
    # Another host of the same household's /64 is the same sender.
    assert [sum_of(11, f"2001:db8::{n}") for n in range(1, 4)] == [200, 200, 429]
    wall.s += 20
    assert sum_of(1, "203.0.113.5") == 200


def test_every_sum_of_a_stranger_is_priced_by_what_it_took_and_typing_is_free(app) -> None:
    wall, work = Clock(), Clock()
    slots = ConcurrencyLimiter(now=wall, worked=work)

    def ask(seconds: float, address: str, path: str = "/api/compute/tank-volume") -> int:
        with app.test_request_context(path, method="POST", environ_base={"REMOTE_ADDR": address}):
            try:
                slots.enter()
            except ProblemError as refused:
                return refused.status
            work.s += seconds
            slots.leave(None)
            return 200

    # Ten thousand keystrokes cost nothing; a short name that works for seconds does.
    assert {ask(0.004, "203.0.113.8") for _ in range(10_000)} == {200}
    assert [ask(7, "203.0.113.9") for _ in range(4)] == [200, 200, 200, 429]
    assert ask(0.001, "203.0.113.9", "/api/counter") == 429
    assert ask(0.001, "203.0.113.8") == 200


def test_one_address_never_holds_every_turn(app) -> None:
    slots = ConcurrencyLimiter()
    held: list[int] = []
    go = threading.Event()

    def sum_of(address: str) -> None:
        with app.test_request_context(
            "/api/compute/cycle-forecast", method="POST", environ_base={"REMOTE_ADDR": address}
        ):
            try:
                slots.enter()
            except ProblemError as refused:
                held.append(refused.status)
                return
            held.append(200)
            go.wait(30)
            slots.leave(None)

    many = [threading.Thread(target=sum_of, args=("203.0.113.5",)) for _ in range(5)]
    for thread in many:
        thread.start()
    end = time.monotonic() + 20
    while len(held) < 3 and time.monotonic() < end:
        time.sleep(0.01)
    # One computes, two wait, two are told to ask again; a neighbour computes at once.
    assert sorted(held) == [200, 503, 503]
    other = threading.Thread(target=sum_of, args=("203.0.113.6",))
    other.start()
    while len(held) < 4 and time.monotonic() < end:
        time.sleep(0.01)
    assert sorted(held) == [200, 200, 503, 503]
    go.set()
    for thread in (*many, other):
        thread.join()
    assert sorted(held) == [200, 200, 200, 200, 503, 503]


def test_a_question_whose_keeper_has_hung_up_takes_no_turn(app) -> None:
    slots = ConcurrencyLimiter()
    here = {"REMOTE_ADDR": "203.0.113.5"}
    gone = {**here, "waitress.client_disconnected": lambda: True}
    for environ, status in ((gone, 503), (here, 200)) * 4:
        with app.test_request_context("/api/compute/cycle-forecast", method="POST", environ_base=environ):
            if status == 503:
                with pytest.raises(ProblemError) as dropped:
                    slots.enter()
                assert dropped.value.title == "Nobody waits for this"
            else:
                slots.enter()
            slots.leave(None)
