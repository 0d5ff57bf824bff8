"""Password reset by the operator."""

import secrets
import sys

from reedmace.command.serve_database import database_of_serve
from reedmace.database import connect
from reedmace.store import Accounts


def reset(email: str) -> int:
    """Set a new password, printed once; every session of the account ends. email: of the account."""
    password = "-".join(secrets.token_hex(3) for _ in range(3))
    try:
        with database_of_serve() as served:
            database = connect(served.app_url)
            with database.connection_context():
                found = Accounts(database).reset(email, password)
    except RuntimeError as error:
        sys.stderr.write(f"reedmace: {error}\n")
        return 1
    if not found:
        sys.stderr.write(f"reedmace: nobody here signs in as {email}\n")
        return 1
    sys.stdout.write(f"New password of {email}: {password}\nHand it over, and have it changed under Account.\n")
    return 0
