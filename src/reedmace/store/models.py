"""The current peewee models."""

import json
from typing import Any

import peewee


class JsonText(peewee.TextField):
    """JSON column: MariaDB stores JSON as checked text; this reads and writes Python data."""

    def db_value(self, value: Any) -> str | None:
        """Text for the column. value: anything JSON can carry; None stays null where allowed."""
        if value is None and self.null:
            return None
        return json.dumps(value, ensure_ascii=False, separators=(",", ":"))

    def python_value(self, value: str | None) -> Any:
        """Data from the column's text. value: as stored."""
        return None if value is None else json.loads(value)


class Row(peewee.Model):
    """Base model. No model is bound to a database: each query names its own, so that threads do not share one."""

    class Meta:
        legacy_table_names = False


class Account(Row):
    """A keeper's account."""

    id = peewee.BigAutoField()
    email = peewee.CharField(254, unique=True)
    password_hash = peewee.CharField(255)
    units = JsonText(null=True)
    contributes = peewee.BooleanField(default=True)
    """Whether its boxes and timed flows count when typical boxes are learned."""
    made_at = peewee.DateTimeField()
    confirmed_at = peewee.DateTimeField(null=True)
    """When its address was shown to be its own; empty while nobody followed the link."""


class SignedIn(Row):
    """A session. Without its row no cookie is valid."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE")
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()


class RecoveryCode(Row):
    """A single-use recovery code; only its hash is stored."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE")
    code_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()


class CalendarLink(Row):
    """The secret calendar link, one an account; only its hash is stored."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", unique=True)
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()


class SignInFailure(Row):
    """A failed sign-in, counted in the database so that every worker sees it."""

    id = peewee.BigAutoField()
    who = peewee.FixedCharField(64)
    at = peewee.DateTimeField()


class Tank(Row):
    """A tank."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE")
    account_id: int
    name = peewee.CharField(80)
    made_at = peewee.DateTimeField()
    aside = peewee.CharField(10, null=True)
    """"archived" or "removed"; empty for a tank in use."""
    aside_at = peewee.DateTimeField(null=True)
    writes = peewee.BigIntegerField(default=0)
    """Number of writes to its logbook."""
    practice = JsonText(null=True)
    """Lesson, seed and clock of a practice tank; empty for a real one."""


class EntryRow(Row):
    """One entry of a tank's logbook."""

    id = peewee.BigAutoField()
    tank = peewee.ForeignKeyField(Tank, on_delete="CASCADE")
    tank_id: int
    client_key = peewee.CharField(64)
    kind = peewee.CharField(32)
    at = peewee.DateTimeField()
    written_at = peewee.DateTimeField()
    supersedes_id = peewee.BigIntegerField(null=True)
    by_account = peewee.BigIntegerField(null=True)
    """Who wrote it, where it was not the tank's own keeper."""
    body = JsonText()
    series = peewee.CharField(12)
    """Computed by the database: "test", "probe" or "flow"; empty for what is rare. Never written."""

    class Meta:
        table_name = "entry"


class RoomRow(Row):
    """A room: its plan, and the number of saves."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE")
    account_id: int
    name = peewee.CharField(80)
    plan = JsonText()
    version = peewee.IntegerField()
    made_at = peewee.DateTimeField()

    class Meta:
        table_name = "room"


class DeviceRow(Row):
    """A device that writes in a tank's logbook, or in those of a room."""

    id = peewee.BigAutoField()
    tank = peewee.ForeignKeyField(Tank, on_delete="CASCADE", null=True)
    room = peewee.ForeignKeyField(RoomRow, on_delete="CASCADE", null=True)
    name = peewee.CharField(80)
    kind = peewee.CharField(32)
    filter_key = peewee.CharField(40, null=True)
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()
    made_by = peewee.BigIntegerField(null=True)
    """Account that made it; its device falls with its right."""

    class Meta:
        table_name = "device"


class Member(Row):
    """An account that helps in another's household."""

    id = peewee.BigAutoField()
    owner = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    owner_id: int
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    account_id: int
    role = peewee.CharField(10)
    made_at = peewee.DateTimeField()


class Invite(Row):
    """A single-use invitation; only its hash is stored."""

    id = peewee.BigAutoField()
    owner = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    role = peewee.CharField(10)
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()


class LookLink(Row):
    """A public view link to a tank; only its hash is stored."""

    id = peewee.BigAutoField()
    tank = peewee.ForeignKeyField(Tank, on_delete="CASCADE", backref="+")
    tank_id: int
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()


class ReadTokenRow(Row):
    """A token that only reads; only its hash is stored."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    account_id: int
    tank = peewee.ForeignKeyField(Tank, on_delete="CASCADE", null=True, backref="+")
    tank_id: int | None
    name = peewee.CharField(80)
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()
    until = peewee.DateTimeField()

    class Meta:
        """Its table."""

        table_name = "read_token"


class ShelfBoxRow(Row):
    """One box on an account's shelf."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    client_key = peewee.CharField(64)
    body = JsonText()
    made_at = peewee.DateTimeField()

    class Meta:
        table_name = "shelf_box"


class ShelfLink(Row):
    """The link that shows a shelf, one an account; only its hash is stored."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+", unique=True)
    account_id: int
    token_hash = peewee.FixedCharField(64, unique=True)
    made_at = peewee.DateTimeField()


class LearnedRow(Row):
    """What was learned of typical boxes here: one row."""

    id = peewee.IntegerField(primary_key=True)
    body = JsonText()
    made_at = peewee.DateTimeField()

    class Meta:
        table_name = "learned_boxes"


class IdempotentAnswer(Row):
    """The answer of a creating call, by its client's key."""

    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    client_key = peewee.CharField(64)
    path = peewee.CharField(200)
    status = peewee.IntegerField()
    body = peewee.TextField()
    made_at = peewee.DateTimeField()

    class Meta:
        table_name = "idempotent_answer"
        primary_key = peewee.CompositeKey("account", "client_key")


class PracticeClass(Row):
    """A class on a practice lesson, of the teacher's account, forgotten after a month."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    code = peewee.CharField(8, unique=True)
    lesson = peewee.CharField(40)
    seed = peewee.IntegerField(null=True)
    coach = peewee.CharField(12)
    stopped = peewee.BooleanField(default=False)
    uncovered = peewee.BooleanField(default=False)
    made_at = peewee.DateTimeField()

    class Meta:
        table_name = "practice_class"


class PracticeSeat(Row):
    """A learner's place in a class: their name and their practice tank."""

    id = peewee.BigAutoField()
    of_class = peewee.ForeignKeyField(PracticeClass, column_name="class_id", on_delete="CASCADE", backref="+")
    tank = peewee.ForeignKeyField(Tank, on_delete="CASCADE", backref="+", unique=True)
    name = peewee.CharField(40)

    class Meta:
        table_name = "practice_seat"


class PracticeResult(Row):
    """How a lesson ended, with its page."""

    id = peewee.BigAutoField()
    account = peewee.ForeignKeyField(Account, on_delete="CASCADE", backref="+")
    tank_id = peewee.BigIntegerField()
    lesson = peewee.CharField(40)
    seed = peewee.IntegerField()
    won = peewee.BooleanField()
    lost = peewee.IntegerField()
    page = JsonText()
    made_at = peewee.DateTimeField()
    counts = peewee.BooleanField(default=True)
    """False where another tank of the same play counts."""

    class Meta:
        table_name = "practice_result"
