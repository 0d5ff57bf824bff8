"""notices: for the operator, how many wait, and what could not be sent and why."""

import sys

from reedmace.command.serve_database import database_of_serve
from reedmace.database import connect
from reedmace.store import Notices

STATES = ("waiting", "sent", "dropped", "dead")


def report() -> int:
    """Print the number of notices by state, and the newest that were given up."""
    try:
        with database_of_serve() as served:
            database = connect(served.app_url)
            with database.connection_context():
                counts, dead = Notices(database).counts(), Notices(database).dead()
    except RuntimeError as error:
        sys.stderr.write(f"reedmace: {error}\n")
        return 1
    sys.stdout.write(", ".join(f"{counts.get(state, 0)} {state}" for state in STATES) + "\n")
    for email, notice in dead:
        when = f"{notice.done_at:%Y-%m-%d %H:%M}" if notice.done_at else ""
        sys.stdout.write(f"{when}  {notice.kind} to {email}: {notice.error}\n")
    return 0
