"""The Host header is one, well formed, and one of the operator's where those are named."""

import pytest
from apiflask import APIFlask

from reedmace.api import Settings, create_app
from reedmace.command.mariadb import MariaDB


@pytest.fixture(scope="module")
def named(mariadb: MariaDB) -> APIFlask:
    """An installation that names its hosts."""
    hosts = ("tanks.example", ".rack.example")
    return create_app(Settings(database_url=mariadb.app_url, secret_key="test", quick_hash=True, hosts=hosts))


@pytest.mark.parametrize("host", ["tanks.example", "tanks.example:8443", "two.rack.example"])
def test_its_own_hosts_are_answered(named: APIFlask, host: str) -> None:
    assert named.test_client().get("/api/session", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize("host", ["evil.example", "tanks.example.evil.example", "eviltanks.example", "127.0.0.1"])
def test_another_host_is_refused_with_what_to_do(named: APIFlask, host: str) -> None:
    answer = named.test_client().get("/api/session", headers={"Host": host})
    assert answer.status_code == 400
    assert answer.json["title"] == "Not a host of this installation"
    assert "REEDMACE_HOSTS" in answer.json["detail"]


def test_what_watches_the_machine_asks_by_address(named: APIFlask) -> None:
    assert named.test_client().get("/healthz", headers={"Host": "10.0.0.7"}).status_code == 200


@pytest.mark.parametrize("host", ["a.example, b.example", "a b", "a.example/x", "user@a.example", "a.example:port", ""])
def test_a_host_that_is_none_is_refused_by_any_installation(app: APIFlask, host: str) -> None:
    answer = app.test_client().get("/api/session", headers={"Host": host})
    assert answer.status_code == 400
    assert answer.json["title"] == "Host not understood"


@pytest.mark.parametrize("host", ["localhost", "127.0.0.1:8420", "[::1]:8420", "any.example"])
def test_without_named_hosts_any_is_answered(app: APIFlask, host: str) -> None:
    assert app.test_client().get("/api/session", headers={"Host": host}).status_code == 200
