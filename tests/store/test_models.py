"""JSON columns, and tables that go with what they belong to."""

from typing import Any

import peewee
import pytest

from reedmace.store import notice_models
from reedmace.store.models import Account, EntryRow, JsonText, Row, Tank


@pytest.mark.parametrize("value", [{"ä": [1, None, True]}, [], "text", 0.5])
def test_json_comes_back_as_it_was(value: object) -> None:
    column = JsonText()
    assert column.python_value(column.db_value(value)) == value


def test_nothing_is_null_only_where_it_may_be() -> None:
    assert JsonText(null=True).db_value(None) is None
    assert JsonText().db_value(None) == "null"
    assert JsonText().python_value(None) is None


def test_what_belongs_to_a_tank_or_an_account_goes_with_it() -> None:
    found = vars(notice_models).values()
    rows: list[type[Row]] = [row for row in found if isinstance(row, type) and issubclass(row, Row)]
    models: set[Any] = {Tank, EntryRow, *rows}
    for model in models:
        for field in model._meta.sorted_fields:
            if isinstance(field, peewee.ForeignKeyField):
                assert field.on_delete == "CASCADE", (model, field)


def test_no_model_is_bound_to_a_database() -> None:
    assert Account._meta.database is None
