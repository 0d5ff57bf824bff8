"""A client over the real application and a real MariaDB."""

import itertools
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

import pytest
from apiflask import APIFlask
from flask.testing import FlaskClient

from reedmace.api import Settings, create_app
from reedmace.command.mariadb import MariaDB
from reedmace.store.models import SignInFailure

_numbers = itertools.count(1)


@pytest.fixture(scope="session")
def app(mariadb: MariaDB) -> APIFlask:
    """The application, hashing cheaply."""
    return create_app(
        Settings(
            database_url=mariadb.app_url,
            secret_key="test",
            demo=True,
            quick_hash=True,
            sign_ups_an_hour=100_000,
            # A disk busy with other work may hold a commit for longer than a keeper would be kept waiting.
            database_answer_s=60,
        )
    )


@pytest.fixture(autouse=True)
def _counters_begin_anew(request: pytest.FixtureRequest) -> None:
    """Every test comes from the same address: what an earlier one guessed wrong must not pause it."""
    if "app" in request.fixturenames:
        database = request.getfixturevalue("app").extensions["database"]
        with database.connection_context():
            SignInFailure.delete().bind(database).execute()


class Keeper:
    """A browser's worth of state: cookies and the token."""

    def __init__(self, client: FlaskClient) -> None:
        self.client = client
        self.token = client.get("/api/session").json["csrf_token"]

    def send(self, method: str, path: str, body: Any = None, **more: Any):
        headers = {"X-CSRF-Token": self.token, **more.pop("headers", {})}
        return self.client.open(path, method=method, json=body, headers=headers, **more)

    def get(self, path: str):
        return self.client.get(path)

    def enter(self, method: str, path: str, body: Any):
        response = self.send(method, path, body)
        if response.status_code < 300:
            self.token = response.json["csrf_token"]
        return response

    def tank(self, name: str = "Shelf") -> int:
        return self.send("POST", "/api/tanks", {"name": name}).json["id"]

    def write(self, tank: int, body: dict, *, key: str | None = None, **more: Any):
        key = key or f"key-{next(_numbers):08d}"
        entry = {"key": key, "at": more.pop("at", datetime.now(UTC).isoformat()), "body": body, **more}
        return self.send("POST", f"/api/tanks/{tank}/entries", entry)


@pytest.fixture
def visitor(app: APIFlask) -> Callable[[], Keeper]:
    """A new browser each time, signed in to nothing."""
    return lambda: Keeper(app.test_client())


@pytest.fixture
def sign_up(visitor: Callable[[], Keeper]) -> Callable[[], Keeper]:
    """A new account each time, signed in."""

    def make() -> Keeper:
        keeper = visitor()
        response = keeper.enter(
            "POST", "/api/account", {"email": f"keeper{next(_numbers)}@yard.example", "password": "reed and water"}
        )
        assert response.status_code == 201
        return keeper

    return make


@pytest.fixture
def keeper(sign_up: Callable[[], Keeper]) -> Keeper:
    """One signed-in keeper."""
    return sign_up()
