"""A silent database is waited for once."""

from urllib.parse import urlsplit

import peewee
import pytest

from reedmace.command.mariadb import MariaDB
from reedmace.database import Database, connect


def test_after_an_idle_connection_proved_silent_no_other_is_opened_to_the_same_server(
    mariadb: MariaDB, monkeypatch: pytest.MonkeyPatch
) -> None:
    database = connect(mariadb.app_url)
    database.connect()
    database.close()
    parts = urlsplit(mariadb.app_url)
    assert parts.hostname is not None
    assert parts.port is not None
    address = (parts.hostname, parts.port)

    def silent(self: Database, _: object) -> bool:
        self._silent(address)
        return True

    monkeypatch.setattr(Database, "_is_closed", silent)
    with pytest.raises(peewee.OperationalError, match="no database server has answered"):
        database.connect()


def test_a_connection_lost_in_a_statement_is_not_asked_again(mariadb: MariaDB) -> None:
    database = connect(mariadb.app_url, answer_s=1)
    database.connect()
    kept = database.connection()
    with pytest.raises(peewee.OperationalError):
        database.execute_sql("SELECT SLEEP(3)")
    assert not kept.open
    database.close()
    database.connect()
    assert database.execute_sql("SELECT 1").fetchone() == (1,)
    database.close_all()
