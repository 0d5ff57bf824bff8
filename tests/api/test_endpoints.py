"""The compute door over HTTP and on the command line, the description, its reference page, and its fuzzing."""

import json
import subprocess
import sys
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error

from reedmace.api import Settings, create_app, reference
from reedmace.core.computations import COMPUTATIONS
from tests.core.test_registry import EXAMPLES
from tests.support.bounds import WHOLE, bounded


@pytest.mark.parametrize("name", COMPUTATIONS)
def test_http_answers_what_the_core_answers(app, name: str) -> None:
    response = app.test_client().post(f"/api/compute/{name}", json=EXAMPLES[name])
    assert response.status_code == 200
    expected = COMPUTATIONS[name].function(COMPUTATIONS[name].question.model_validate(EXAMPLES[name]))
    assert response.json == json.loads(expected.model_dump_json())


def cli(command_environment, *arguments: str, data: str = "") -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "reedmace.command", "compute", *arguments],
        input=data,
        capture_output=True,
        text=True,
        env=command_environment,
    )


def test_the_command_line_answers_the_same(command_environment) -> None:
    done = cli(command_environment, "tank-volume", data=json.dumps(EXAMPLES["tank-volume"]))
    assert done.returncode == 0
    assert json.loads(done.stdout)["net_l"] == pytest.approx(142.7, abs=0.1)


def test_the_command_line_lists_and_describes(command_environment) -> None:
    listed = cli(command_environment, "--list").stdout
    assert all(name in listed for name in COMPUTATIONS)
    assert "length_cm" in json.loads(cli(command_environment, "--schema", "tank-volume").stdout)["input"]["properties"]


def test_the_command_line_answers_a_thousand_lines_in_order_and_names_the_bad_ones(command_environment) -> None:
    lines = [json.dumps({"watts": w}) for w in range(1, 1000)]
    done = cli(
        command_environment, "running-cost", "--lines", data="\n".join([*lines, "{", '{"watts": -1}', "", lines[0]])
    )
    answers = [json.loads(line) for line in done.stdout.splitlines()]
    assert done.returncode == 2
    assert len(answers) == 1002
    assert [a["kwh_year"] for a in answers[:999]] == pytest.approx([w * 8.766 for w in range(1, 1000)])
    assert "not JSON" in answers[999]["error"]
    assert "at least 0" in answers[1000]["error"]
    assert answers[1001] == answers[0]


@pytest.mark.parametrize(
    ("arguments", "data", "words"),
    [
        (["tank-volume"], "{", "not JSON"),
        (["tank-volume"], '{"length_cm": 1}', "length_cm: is 1; it must be at least 5"),
        (["tank-volume"], json.dumps(dict(EXAMPLES["tank-volume"], substrate_depth_cm=50)), "substrate_depth_cm"),
        (["tea-leaves"], "{}", "no computation"),
        ([], "{}", "name a computation"),
        (["--schema", "tea-leaves"], "", "no computation"),
    ],
    ids=["not json", "out of range", "makes no sense", "unknown", "no name", "unknown schema"],
)
def test_the_command_line_refuses_with_code_2_and_one_line(
    command_environment, arguments: list, data: str, words: str
) -> None:
    done = cli(command_environment, *arguments, data=data)
    assert done.returncode == 2
    assert done.stdout == ""
    assert words in done.stderr
    assert len(done.stderr.strip().splitlines()) == 1


def test_the_reference_page_stands_alone(app) -> None:
    page = app.test_client().get("/api/reference").text
    assert "/api/compute/operating-point" in page
    assert "<script" not in page
    assert "http://" not in page
    assert "https://" not in page


def test_the_description_names_no_outside_host_and_every_computation(app) -> None:
    spec = app.test_client().get("/api/openapi.json").json
    assert spec["openapi"].startswith("3.1")
    assert {f"/api/compute/{n}" for n in COMPUTATIONS} <= set(spec["paths"])
    assert not any("." in name for name in spec["components"]["schemas"])


def operations() -> list[tuple[str, str]]:
    """(method, path) of everything the description names."""
    app = create_app(Settings(database_url="mysql://nobody@127.0.0.1:1/none", secret_key="x"))
    spec: Any = app.spec
    return [(method.upper(), path) for path, item in spec["paths"].items() for method in item if method != "parameters"]


@pytest.fixture(scope="module")
def described(app):
    """The description, bound to the application over the real database."""
    return schemathesis.openapi.from_wsgi("/api/openapi.json", app)


@pytest.mark.parametrize(("method", "path"), operations(), ids=lambda v: v.strip("/").replace("/", "."))
def test_nothing_a_client_sends_is_a_server_error(described, sign_up_once, method: str, path: str) -> None:
    keeper, tank, device_token = sign_up_once
    # Signing out, away or into the demo, or removing the tank, would leave the rest of the run a stranger.
    # What programs read with a token of their own is no session's.
    own = "session" not in path and "account" not in path and not path.startswith("/api/read/")
    trusted = own and method != "DELETE"

    @given(case=described[path][method].as_strategy())
    @settings(
        max_examples=bounded(150, 15), suppress_health_check=list(HealthCheck), derandomize=not WHOLE, deadline=None
    )
    def each(case) -> None:
        if "tank_id" in (case.path_parameters or {}):
            case.path_parameters["tank_id"] = tank
        cookie = keeper.client.get_cookie("reedmace").value
        headers = {"X-CSRF-Token": keeper.token} if trusted else {}
        if path == "/api/device/readings":
            headers["Authorization"] = f"Bearer {device_token}"
        response = case.call(headers=headers, cookies={"reedmace": cookie})
        case.validate_response(response, checks=[not_a_server_error])
        assert response.status_code < 500
        assert not trusted or response.status_code != 401, "the run has become a stranger"
        if response.status_code >= 400:
            assert response.headers["content-type"][0] == "application/problem+json"

    each()


@pytest.fixture(scope="module")
def sign_up_once(app):
    """One keeper with a tank and a device for the whole run."""
    from tests.api.conftest import Keeper

    keeper = Keeper(app.test_client())
    keeper.enter("POST", "/api/account", {"email": "fuzz@yard.example", "password": "reed and water"})
    tank = keeper.tank()
    made = keeper.send("POST", f"/api/tanks/{tank}/devices", {"name": "Plug", "kind": "smart-plug"})
    return keeper, tank, made.json["token"]


def test_a_server_error_would_be_seen(mariadb) -> None:
    """The check above can fail: an application that breaks answers 500 with a problem."""
    app = create_app(Settings(database_url=mariadb.app_url, secret_key="x", quick_hash=True))

    @app.get("/api/compute/broken")
    def broken() -> str:
        raise RuntimeError("on purpose")

    response = app.test_client().get("/api/compute/broken")
    assert response.status_code == 500
    assert response.json["title"] == "Something broke here"


def test_the_reference_is_built_once_however_many_ask_at_once(mariadb, monkeypatch) -> None:
    fresh = create_app(Settings(database_url=mariadb.app_url, secret_key="test", quick_hash=True))
    built: list[int] = []
    monkeypatch.setattr(reference, "_page", lambda spec: built.append(1) or "<p>{nonce}</p>")
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(lambda _: fresh.test_client().get("/api/reference").text, range(8)))
    assert built == [1]
    assert "{nonce}" not in found[0]
    # Each answer has a nonce of its own.
    assert len(set(found)) == len(found)
