"""The door under bad manners: half requests, many long sums, a killed launcher, a taken port."""

import json
import os
import signal
import socket
import subprocess
import sys
import threading
import time
from contextlib import ExitStack
from pathlib import Path
from typing import Any

import pytest
import requests

from reedmace.command.mariadb import _greets
from tests.support.running import Running

TANK = {"length_cm": 90, "width_cm": 40, "height_cm": 45}


@pytest.fixture(scope="module")
def running(tmp_path_factory: pytest.TempPathFactory):
    run = Running("serve", tmp_path_factory.mktemp("door")).start()
    yield run
    run.stop()


def type_on(running: Running) -> float:
    """Seconds until a figure typed is answered."""
    begun = time.monotonic()
    answer = requests.post(f"{running.url}/api/compute/tank-volume", json=TANK, timeout=20)
    assert answer.status_code == 200
    return time.monotonic() - begun


def test_two_hundred_half_sent_requests_hold_nobody_up(running: Running) -> None:
    halves = [
        b"GET /api/session HT",
        b"POST /api/compute/tank-volume HTTP/1.1\r\nHost: x\r\nContent-Length: 90\r\n\r\n{",
    ]
    silent = []
    try:
        for i in range(200):
            one = socket.create_connection(("127.0.0.1", running.port), 5)
            one.sendall(halves[i % 2])
            silent.append(one)
        # A stopped door would hold each of these until the silent ones leave.
        assert max(type_on(running) for _ in range(20)) < 10
    finally:
        for one in silent:
            one.close()


def test_long_sums_take_turns_and_typing_goes_on_beside_them(running: Running) -> None:
    readings = [{"day": d / 2, "ammonia_mg_n_l": 1, "nitrite_mg_n_l": d / 20} for d in range(60)]
    log = {"net_l": 100, "day_now": 30, "readings": readings, "doses": [{"day": 0, "raise_mg_n_l": 1.5}]}
    answers: list[requests.Response] = []

    def forecast(number: int) -> None:
        # Each its own litres, so that none is answered from memory.
        body: dict[str, Any] = {"log": {**log, "net_l": 100 + number}, "draws": 1000}
        answers.append(requests.post(f"{running.url}/api/compute/cycle-forecast", json=body, timeout=120))

    threads = [threading.Thread(target=forecast, args=(n,)) for n in range(24)]
    for thread in threads:
        thread.start()
    slowest = max(type_on(running) for _ in range(10))
    for thread in threads:
        thread.join()
    assert slowest < 10
    assert {a.status_code for a in answers} <= {200, 503}
    # Of one address one is worked out at a time in each process; on a busy machine the others' wait ends first.
    assert sum(a.status_code == 200 for a in answers) >= 1
    for refused in (a for a in answers if a.status_code == 503):
        assert refused.headers["Retry-After"]
        assert refused.json()["title"] == "Busy with long sums"


def test_threads_of_one_worker_answer_as_one_alone_would(running: Running) -> None:
    wanted = {
        n: requests.post(f"{running.url}/api/compute/rank-filters", json=room(n), timeout=60).text for n in (60, 90)
    }
    found: list[bool] = []

    def ask(n: int) -> None:
        for _ in range(3):
            answer = requests.post(f"{running.url}/api/compute/rank-filters", json=room(n), timeout=60)
            found.append(answer.status_code == 503 or answer.text == wanted[n])

    threads = [threading.Thread(target=ask, args=(n,)) for n in (60, 90, 60, 90)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(found) == 12
    assert all(found)


def room(litres: int) -> dict:
    return {"site": {"net_l": litres, "water_depth_cm": 35, "length_cm": 80, "width_cm": 35}}


def test_bodies_too_large_are_refused_in_words_and_whole(running: Running) -> None:
    over = json.dumps({"length_cm": 1, "pad": "x" * 3_000_000})
    headers = {"Content-Type": "application/json"}
    answer = requests.post(f"{running.url}/api/compute/tank-volume", data=over, headers=headers, timeout=20)
    assert answer.status_code == 413
    assert "2 MB" in answer.json()["detail"]

    def endless():
        for _ in range(50):
            yield b"x" * 1_000_000

    try:
        chunked = requests.post(f"{running.url}/api/compute/tank-volume", data=endless(), headers=headers, timeout=30)
        assert chunked.status_code == 413
    except requests.ConnectionError:
        # Shut in the sender's face, which is an answer too.
        pass
    assert type_on(running) < 10


def test_a_launcher_killed_under_traffic_starts_again_on_its_address(tmp_path: Path) -> None:
    running = Running("serve", tmp_path).start()
    try:
        for _ in range(2):
            keep = [requests.Session() for _ in range(4)]
            for session in keep:
                session.get(f"{running.url}/api/session", timeout=10)
            assert running.process is not None
            running.process.kill()
            running.process.wait(10)
            running.start()
            assert requests.get(f"{running.url}/api/session", timeout=10).status_code == 200
    finally:
        running.stop()


def test_a_taken_port_is_a_line_and_not_an_open_door(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        run = Running("serve", tmp_path)
        environment = {**run.environment, "REEDMACE_BIND": f"127.0.0.1:{taken.getsockname()[1]}"}
        command = [sys.executable, "-m", "reedmace.command", "serve"]
        done = subprocess.run(command, env=environment, capture_output=True, text=True, timeout=120)
    assert done.returncode == 1
    assert "cannot listen on" in done.stderr
    assert "open http" not in done.stderr
    assert run.pids("mariadbd") == []


def test_a_worker_deaf_to_a_stop_is_killed_and_the_stop_is_clean(running: Running) -> None:
    deaf = running.pids("reedmace.command.web_server")[0]
    os.kill(deaf, signal.SIGSTOP)
    try:
        assert running.stop() == 0
        assert running.pids("reedmace.command.web_server") == []
    finally:
        running.start()


def test_a_folder_nothing_can_be_written_in_is_a_line_and_no_traceback(tmp_path: Path) -> None:
    # A file stands where the folder is to be: root too cannot write there.
    (tmp_path / "serve").write_text("")
    run = Running("serve", tmp_path)
    with pytest.raises(RuntimeError, match="cannot write in") as told:
        run.start()
    assert "REEDMACE_VAR" in str(told.value)
    assert "Traceback" not in str(told.value)


def test_reading_the_program_starts_no_threads_that_a_fork_would_break(mariadb) -> None:
    # Kernels that share their work between threads give nonsense in a process forked from one that has started them.
    text = (
        "import os, threading, numba.np.ufunc.parallel as shared\n"
        "from reedmace.api import Settings, create_app\n"
        "import reedmace.command.web_server\n"
        "create_app(Settings.from_environment())\n"
        "assert shared._is_initialized is False\n"
        "assert threading.active_count() == 1, threading.enumerate()\n"
        "print('may be forked')\n"
    )
    environment = {**os.environ, "REEDMACE_DATABASE_URL": mariadb.app_url, "REEDMACE_SECRET_KEY": "x" * 32}
    done = subprocess.run([sys.executable, "-c", text], env=environment, capture_output=True, text=True, timeout=120)
    assert done.stdout == "may be forked\n", done.stderr


def test_a_port_that_only_listens_is_not_taken_for_a_server() -> None:
    with socket.socket() as mute:
        mute.bind(("127.0.0.1", 0))
        mute.listen()
        assert not _greets(mute.getsockname()[1])


def test_the_counts_of_all_workers_are_one_and_begin_anew_with_a_start(tmp_path: Path) -> None:
    run = Running("serve", tmp_path, REEDMACE_METRICS="1")
    route = 'route="/api/session",status="200"'

    def counted() -> float:
        text = requests.get(f"{run.url}/metrics", timeout=10).text
        return sum(
            float(line.rsplit(" ", 1)[1]) for line in text.splitlines() if route in line and "requests_total" in line
        )

    def settled() -> float:
        # The launcher asks until it is answered; on a busy machine a try it gave up on is counted a moment later.
        latest = counted()
        while True:
            time.sleep(2)
            now = counted()
            if now == latest:
                return now
            latest = now

    try:
        run.start()
        before = settled()
        for _ in range(20):
            assert (
                requests.get(f"{run.url}/api/session", timeout=10, headers={"Connection": "close"}).status_code == 200
            )
        assert counted() == before + 20
        assert requests.get(f"{run.url}/readyz", timeout=10).text == "ready\n"
        run.stop()
        run.start()
        assert counted() < before + 20
    finally:
        run.stop()


def test_a_question_taken_back_before_its_turn_is_never_worked_out(tmp_path: Path) -> None:
    run = Running("serve", tmp_path, REEDMACE_METRICS="1", REEDMACE_WORKERS="1").start()
    log = {"net_l": 100, "day_now": 4, "doses": [{"day": 0, "raise_mg_n_l": 1.5}]}
    turtle = {"species_id": "slider", "count": 1, "length_cm": 3}

    lines = ExitStack()

    def ask(name: str, body: object) -> socket.socket:
        text = json.dumps(body).encode()
        # Closed whatever comes: a line left open is a warning, which fails whichever test runs later.
        line = lines.enter_context(socket.create_connection(("127.0.0.1", run.port), 120))
        head = f"POST /api/compute/{name} HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\n"
        line.sendall(f"{head}Content-Length: {len(text)}\r\n\r\n".encode() + text)
        return line

    def counted(name: str) -> float:
        text = requests.get(f"{run.url}/metrics", timeout=10).text
        lines = [one for one in text.splitlines() if f'"{name}"' in one and "_count" in one]
        return sum(float(one.rsplit(" ", 1)[1]) for one in lines)

    try:
        # One that takes seconds, and behind it one whose keeper has typed on.
        slow = ask("outgrow", {"net_l": 200, "animals": [turtle] * 60})
        time.sleep(0.5)
        typed_over = ask("cycle-forecast", {"log": {**log, "net_l": 101}})
        time.sleep(0.3)
        typed_over.close()
        assert slow.recv(12) == b"HTTP/1.1 200"
        last = ask("cycle-forecast", {"log": {**log, "net_l": 102}})
        assert last.recv(12) == b"HTTP/1.1 200"
        assert counted("outgrow") == 1
        assert counted("cycle-forecast") == 1
    finally:
        lines.close()
        run.stop()


def said_to(running: Running, raw: bytes) -> tuple[bytes, bool]:
    """What is answered to raw bytes within a few seconds, and whether the connection was closed then."""
    with socket.create_connection(("127.0.0.1", running.port), 5) as line:
        line.sendall(raw)
        line.settimeout(3)
        said = b""
        try:
            while more := line.recv(65536):
                said += more
        except TimeoutError:
            return said, False
        return said, True


@pytest.mark.parametrize(
    "head",
    [b"GET /api/session HTTP/1.1\r\n\r\n", b"GET /api/session HTTP/1.1\r\nHost: a.example\r\nHost: b.example\r\n\r\n"],
    ids=["no host", "two hosts"],
)
def test_a_request_names_one_host(running: Running, head: bytes) -> None:
    said, _ = said_to(running, head)
    assert said.startswith(b"HTTP/1.1 400 ")
    assert b"Host not understood" in said


def test_a_request_with_two_lengths_is_answered_and_the_connection_closed(running: Running) -> None:
    body = json.dumps(TANK).encode()
    head = b"POST /api/compute/tank-volume HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\n"
    chunked = b"Transfer-Encoding: chunked\r\n"
    chunks = b"%x\r\n%s\r\n0\r\n\r\n" % (len(body), body)
    both, closed = said_to(running, head + chunked + b"Content-Length: 4\r\n\r\n" + chunks)
    assert both.startswith(b"HTTP/1.1 200 ")
    assert closed
    _, closed = said_to(running, head + chunked + b"\r\n" + chunks)
    assert not closed
