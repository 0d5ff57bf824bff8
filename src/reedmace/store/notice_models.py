"""Rows of notices, jobs and photographs."""

import peewee

from reedmace.store.models import Account, JsonText, Row, ShelfBoxRow, Tank


class NoticeChoiceRow(Row):
    """What reaches an account and when, and when that is looked at next."""

    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+", primary_key=True)
    account_id: int
    body = JsonText()
    next_check = peewee.DateTimeField()

    class Meta:
        table_name = "notice_choice"


class NoticeRow(Row):
    """One notice: waiting, or done with. `once_key` is unique in its account, so that none is made twice."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    account_id: int
    once_key = peewee.CharField(80)
    kind = peewee.CharField(12)
    tank_id = peewee.BigIntegerField(null=True)
    body = JsonText()
    state = peewee.CharField(8)
    """"waiting", "sent", "dropped" (nothing left to say) or "dead" (it could not be sent)."""
    due_at = peewee.DateTimeField()
    tries = peewee.IntegerField(default=0)
    claim = peewee.FixedCharField(32, null=True)
    claimed_until = peewee.DateTimeField(null=True)
    error = peewee.CharField(300, default="")
    made_at = peewee.DateTimeField()
    done_at = peewee.DateTimeField(null=True)

    class Meta:
        table_name = "notice"


class JobRow(Row):
    """A job that one worker of all does at a time."""

    name = peewee.CharField(40, primary_key=True)
    due_at = peewee.DateTimeField()

    class Meta:
        table_name = "job"


class PhotoRow(Row):
    """One photograph of a tank, as JPEG in two sizes."""

    id = peewee.BigAutoField()
    tank = peewee.ForeignKeyField(Tank, on_delete="CASCADE", backref="+")
    tank_id: int
    client_key = peewee.FixedCharField(64)
    at = peewee.DateTimeField()
    of = peewee.CharField(16)
    entry_key = peewee.FixedCharField(64, null=True)
    """Key of the logbook entry it belongs to, which may be written later."""
    words = peewee.CharField(300)
    width = peewee.IntegerField()
    height = peewee.IntegerField()
    digest = peewee.FixedCharField(64)
    size = peewee.IntegerField()
    shown = peewee.BooleanField(default=False)
    """Whether it stands on the page shown to neighbours."""
    by_account = peewee.BigIntegerField(null=True)
    made_at = peewee.DateTimeField()
    image = peewee.BlobField()
    thumb = peewee.BlobField()

    class Meta:
        table_name = "photo"


class BoxPhotoRow(Row):
    """The photograph of a box on a shelf, as JPEG in two sizes."""

    box = peewee.ForeignKeyField(ShelfBoxRow, on_delete="CASCADE", backref="+", primary_key=True)
    box_id: int
    digest = peewee.FixedCharField(64)
    size = peewee.IntegerField()
    width = peewee.IntegerField()
    height = peewee.IntegerField()
    made_at = peewee.DateTimeField()
    image = peewee.BlobField()
    thumb = peewee.BlobField()

    class Meta:
        table_name = "box_photo"
