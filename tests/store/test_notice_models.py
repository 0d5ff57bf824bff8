"""Rows of notices, jobs and photographs stand in the tables the migrations made."""

import peewee
import pytest

from reedmace.store.notice_models import BoxPhotoRow, JobRow, NoticeChoiceRow, NoticeRow, PhotoRow


@pytest.mark.parametrize("model", [NoticeChoiceRow, NoticeRow, JobRow, PhotoRow, BoxPhotoRow])
def test_every_field_is_a_column_and_none_is_missing(database: peewee.Database, model: type[peewee.Model]) -> None:
    columns = {column.name: column for column in database.get_columns(model._meta.table_name)}
    fields = {field.column_name: field for field in model._meta.sorted_fields}
    assert set(fields) <= set(columns)
    # What the table asks for and nothing fills in is a field.
    asked = {name for name, column in columns.items() if not column.null and column.default is None}
    assert asked <= set(fields) | {"id"}
    assert {name for name, field in fields.items() if field.null} <= {name for name, c in columns.items() if c.null}
