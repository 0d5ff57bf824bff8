"""What a crowd or an attacker sends: answers stay small, a lost database is a 503, connections stay cheap."""

import peewee
import pytest

from reedmace.store.accounts import Accounts
from reedmace.store.database import connect


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
