"""Creating calls with an `Idempotency-Key`: done once, and answered alike however often they are sent.

Key, work and answer are one transaction: a call that was broken off left nothing, one whose answer was lost is found.
"""

from flask import Flask, Response, current_app, g, request
from flask_login import current_user

from reedmace.api.problems import ProblemError
from reedmace.store.idempotency import claim, keep_answer, kept_answer

HEADER = "Idempotency-Key"
SHORTEST, LONGEST = 8, 64
"""Characters of a key."""


def _begin() -> Response | None:
    key = request.headers.get(HEADER)
    if key is None or request.method != "POST" or "database" not in g or not current_user.is_authenticated:
        return None
    if not SHORTEST <= len(key) <= LONGEST or not key.isascii() or not key.isprintable():
        raise ProblemError(
            400, "No usable key", f"{HEADER} needs {SHORTEST} to {LONGEST} plain characters, new for each thing made."
        )
    account = current_user.keeper.id
    if (before := kept_answer(g.database, account, key, request.path)) is not None and before[0]:
        return _again(before)
    work = g.database.transaction()
    work.__enter__()
    if not claim(g.database, account, key, request.path, g.now):
        work.__exit__(None, None, None)
        found = kept_answer(g.database, account, key, request.path)
        if found is None or not found[0]:
            raise ProblemError(409, "That key is in use", f"Another call has this {HEADER}; take a new one.")
        return _again(found)
    g.idempotent_answer = (work, account, key)
    return None


def _again(before: tuple[int, str]) -> Response:
    status, body = before
    return current_app.response_class(body, status=status, mimetype="application/json")


def _end(response: Response) -> Response:
    begun = g.get("idempotent_answer")
    if begun is None:
        return response
    work, account, key = begun
    if response.status_code < 300 and response.is_json:
        keep_answer(g.database, account, key, response.status_code, response.get_data(as_text=True))
        work.__exit__(None, None, None)
    else:
        # What was refused may be sent again with the same key, put right.
        work.__exit__(ProblemError, None, None)
    g.pop("idempotent_answer")
    return response


def _broken_off(_: BaseException | None) -> None:
    begun = g.pop("idempotent_answer", None)
    if begun is not None:
        begun[0].__exit__(ProblemError, None, None)


def install(app: Flask) -> None:
    """Take keys of creating calls. app: the application, its database opened before."""
    app.before_request(_begin)
    app.after_request(_end)
    app.teardown_request(_broken_off)
