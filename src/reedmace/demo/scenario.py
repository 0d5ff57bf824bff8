"""Fennel Yard: a row of small workshops with a few shared tanks, kept by one keeper. All of it invented."""

import secrets
from datetime import UTC, datetime, timedelta

import peewee

from reedmace.api.accounts import DEMO_EMAIL
from reedmace.core.filter.shelf_box import box_of_filter
from reedmace.demo.rack import ROOM, rack, rack_plan
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.demo.stairwell import stairwell
from reedmace.demo.tanks import bindery, courtyard, kiln_room, long_bench
from reedmace.logbook.replay.entries import NewEntry
from reedmace.logbook.replay.state import replay
from reedmace.logbook.rooms.room_view import RoomTank, room_view
from reedmace.store import Accounts, Rooms, Shelf, Tanks, set_contributes


def write_demo(database: peewee.Database, *, fresh: bool = False, now: datetime | None = None) -> bool:
    """Write the demo keeper's tanks unless present; True when written. fresh: write them again."""
    now = now or datetime.now(UTC)
    accounts = Accounts(database)
    keeper = accounts.by_email(DEMO_EMAIL)
    if keeper is None:
        # The password is never used: the demo is entered by a button.
        keeper = accounts.sign_up(DEMO_EMAIL, secrets.token_hex(32), now.replace(tzinfo=None))
    # Its boxes and flows are invented.
    set_contributes(database, keeper.id, may=False)
    tanks = Tanks(database, keeper.id)
    if tanks.all():
        if not fresh:
            return False
        for tank in tanks.all():
            tanks.forget(tank.id)
        # Visits hold copies of what is written again.
        accounts.forget_visitors(now.astimezone(UTC).replace(tzinfo=None))
    rooms = Rooms(database, keeper.id)
    for room in rooms.all():
        rooms.remove(room.id)
    shelf = Shelf(database, keeper.id)
    shelf.put([(f"demo-box-{f.id}", box_of_filter(f)) for f in SAMPLE_BOXES], now)
    made = {}
    for name, rows in (
        ("Kiln room", kiln_room()),
        ("Bindery window", bindery(now)),
        ("Long bench", long_bench(now)),
        ("Courtyard door", courtyard(now)),
        ("Stairwell", stairwell(now)),
        *rack(now),
    ):
        tank = tanks.make(name, now)
        made[name] = tank.id
        latest: dict[str, int] = {}
        for number, (days_ago, body) in enumerate(rows):
            entry, _ = tanks.add(
                tank.id,
                NewEntry.model_validate(
                    {
                        "key": f"demo-{number:04d}",
                        "at": now - timedelta(days=days_ago),
                        "body": body,
                        "based_on": latest.get(body["kind"]),
                    }
                ),
                now,
            )
            if body["kind"].endswith("-plan"):
                latest[body["kind"]] = entry.id
    ids = [made[name] for name, _ in rack(now)]
    entries = tanks.recent_of(ids)
    plan = rack_plan(ids)
    air = room_view(plan, [RoomTank(i, str(i), replay(entries[i])) for i in ids], now).air
    # The valves are set so that every tank bubbles.
    opens = {o.key: o.balanced_open_share for o in air.outlets} if air else {}
    rooms.make(ROOM, plan.model_copy(update={"open_shares": opens}), now)
    return True
