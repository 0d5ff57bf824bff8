"""Conversion of errors to RFC 9457 problem details."""

from collections.abc import Callable
from typing import Any

from apiflask import HTTPError
from flask import Flask, Response, current_app, g, jsonify
from peewee import DataError, InterfaceError, OperationalError
from pydantic import BaseModel, Field, ValidationError
from werkzeug.exceptions import HTTPException

from reedmace.core.contract import Issue
from reedmace.core.errors import CannotAnswer
from reedmace.core.registry import issues_of
from reedmace.database import AllBusy
from reedmace.logbook.plans.differences import Difference, differences
from reedmace.store import (
    EmailTaken,
    NoSuchBox,
    NoSuchDevice,
    NoSuchEntry,
    NoSuchInvite,
    NoSuchRoom,
    NoSuchTank,
    NotAllowed,
    OverQuota,
    PlanMoved,
    RoomMoved,
    TooManyAttempts,
)
from reedmace.store.photos import NoSuchPhotoError
from reedmace.store.practice_classes import ClassFullError, NoSuchClassError

MOST_ISSUES = 50
"""Most faults listed in one response."""


class Problem(BaseModel):
    """RFC 9457 problem details."""

    type: str = "about:blank"
    title: str
    status: int = Field(ge=400, le=599)
    detail: str
    errors: list[Issue] = []
    current: Any = Field(default=None, description="With a conflict: what stands now")
    differences: list[Difference] = Field(default=[], description="With a conflict: every field the two differ in")
    request_id: str = Field(default="", description="Of a fault of ours, its number in the operator's log")


class ProblemError(Exception):
    """An exception answered as a problem."""

    def __init__(
        self,
        status: int,
        title: str,
        detail: str,
        errors: list[Issue] | None = None,
        headers: dict[str, str] | None = None,
    ) -> None:
        super().__init__(detail)
        self.status, self.title, self.detail, self.errors, self.headers = (
            status,
            title,
            detail,
            errors or [],
            headers or {},
        )


def _answer(
    status: int,
    title: str,
    detail: str,
    errors: list[Issue] | None = None,
    headers: dict[str, str] | None = None,
    current: Any = None,
    differ: list[Difference] | None = None,
) -> Response:
    issues = (errors or [])[:MOST_ISSUES]
    problem = Problem(
        title=title,
        status=status,
        detail=detail,
        errors=issues,
        current=current,
        differences=differ or [],
        # Internal errors only: two rejections must look alike.
        request_id=g.get("request_id", "") if status >= 500 else "",
    )
    response = jsonify(problem.model_dump(mode="json"))
    response.status_code = status
    response.content_type = "application/problem+json"
    response.headers.update(headers or {})
    return response


def _unprocessable(error: ValidationError | CannotAnswer) -> Response:
    found = issues_of(error)
    more = f" (and {len(found) - 1} more)" if len(found) > 1 else ""
    return _answer(422, "Some of what was sent cannot be used", f"{found[0]}{more}" if found else str(error), found)


_WORDS = {
    400: "The request could not be read; send JSON as the reference describes.",
    401: "Sign in first. Anything typed is kept in this browser.",
    404: "There is nothing here under that address, or it is not yours.",
    405: "That address does not take this kind of request.",
    413: "That is too large: at most 2 MB, a photograph 20 MB, a logbook 48 MB. Send it smaller or in parts.",
    415: "Send JSON with Content-Type: application/json.",
    429: "Too many attempts; wait a little.",
}


def _own(error: ProblemError) -> Response:
    return _answer(error.status, error.title, error.detail, error.errors, error.headers)


def _apiflask(error: HTTPError) -> Response:
    if isinstance(error.__cause__, ValidationError):
        return _unprocessable(error.__cause__)
    return _answer(error.status_code, error.message or "", _WORDS.get(error.status_code, error.message or ""))


def _no_tank(_: NoSuchTank) -> Response:
    return _answer(404, "No such tank", "There is no tank of that number in your account.")


def _no_photo(_: NoSuchPhotoError) -> Response:
    return _answer(404, "No such photograph", "It may have been taken away.")


def _no_device(_: NoSuchDevice) -> Response:
    return _answer(404, "No such device", "It may have been taken away already.")


def _no_entry(_: NoSuchEntry) -> Response:
    return _answer(404, "No such entry", "That entry is not in this tank's logbook.")


def _taken(_: EmailTaken) -> Response:
    return _answer(
        409,
        "That address has an account",
        "Sign in instead, or use another address.",
        [Issue(where="email", what="has an account already.", remedy="Sign in.")],
    )


def _limited(error: TooManyAttempts) -> Response:
    return _answer(
        429,
        "Too many attempts",
        f"Signing in is paused for {error.wait_s // 60 + 1} minutes.",
        headers={"Retry-After": str(error.wait_s)},
    )


def _moved(error: PlanMoved) -> Response:
    current = error.current.model_dump(mode="json") if error.current else None
    return _answer(
        409,
        "This plan was saved elsewhere",
        "Another tab or device saved it since you began. Both are kept: look at the two and choose.",
        current=current,
        differ=differences(error.current.body, error.mine.body, error.filters) if error.current else [],
    )


def _not_allowed(_: NotAllowed) -> Response:
    return _answer(403, "Not yours to do", "This tank is another keeper's, who has not given you so much to do in it.")


def _no_invite(_: NoSuchInvite) -> Response:
    return _answer(404, "This invitation opens nothing", "It was used, taken back, older than a week, or is your own.")


def _no_box(_: NoSuchBox) -> Response:
    return _answer(404, "No such box", "It is not on this shelf; it may have been taken off.")


def _no_class(_: NoSuchClassError) -> Response:
    return _answer(404, "No such class", "There is no class of that number in your account; it may be over.")


def _class_full(_: ClassFullError) -> Response:
    return _answer(409, "No place left", "A class has 40 places, and a teacher 20 classes. Close one, or open another.")


def _no_room(_: NoSuchRoom) -> Response:
    return _answer(404, "No such room", "There is no room of that number in your account.")


def _room_moved(error: RoomMoved) -> Response:
    now = error.current
    return _answer(
        409,
        "This room was saved elsewhere",
        "Another tab or device saved it since you began. What stands there now is sent along.",
        current={"id": now.id, "name": now.name, "version": now.version, "plan": now.plan.model_dump(mode="json")},
    )


def _over_quota(error: OverQuota) -> Response:
    if error.wait_s is None:
        return _answer(409, error.title, error.remedy)
    return _answer(429, error.title, error.remedy, headers={"Retry-After": str(error.wait_s)})


def _too_deep(_: RecursionError) -> Response:
    return _answer(400, "Nested too deeply", "No question here nests more than a few levels; send it flat.")


def _database(error: OperationalError | InterfaceError | AllBusy) -> Response:
    current_app.logger.error("database: %s", error)
    return _answer(
        503,
        "The logbook cannot be reached just now",
        "Nothing was saved. What you typed is kept; try again in a moment.",
        headers={"Retry-After": "2"},
    )


def _no_text(_: UnicodeEncodeError) -> Response:
    return _answer(422, "Some of what was sent cannot be used", "A text holds half a character; type it anew.")


def _does_not_fit(_: DataError) -> Response:
    return _answer(422, "Some of what was sent cannot be used", "A text is longer than can be kept. Nothing was saved.")


def _http(error: HTTPException) -> Response:
    code = error.code or 500
    methods = getattr(error, "valid_methods", None)
    headers = {"Allow": ", ".join(methods)} if methods else {}
    return _answer(code, error.name, _WORDS.get(code, error.description or error.name), headers=headers)


def _unexpected(error: Exception) -> Response:
    current_app.logger.exception("unexpected error")
    return _answer(
        500,
        "Something broke here",
        "It is our fault, not yours. Nothing was saved; what you typed is still on your screen.",
    )


_HANDLERS: dict[type[Exception], Callable[[Any], Response]] = {
    ProblemError: _own,
    HTTPError: _apiflask,
    ValidationError: _unprocessable,
    CannotAnswer: _unprocessable,
    NoSuchTank: _no_tank,
    NoSuchDevice: _no_device,
    NoSuchPhotoError: _no_photo,
    NoSuchEntry: _no_entry,
    NotAllowed: _not_allowed,
    NoSuchInvite: _no_invite,
    NoSuchBox: _no_box,
    NoSuchRoom: _no_room,
    NoSuchClassError: _no_class,
    ClassFullError: _class_full,
    RoomMoved: _room_moved,
    OverQuota: _over_quota,
    EmailTaken: _taken,
    TooManyAttempts: _limited,
    PlanMoved: _moved,
    RecursionError: _too_deep,
    OperationalError: _database,
    InterfaceError: _database,
    AllBusy: _database,
    UnicodeEncodeError: _no_text,
    DataError: _does_not_fit,
    HTTPException: _http,
    Exception: _unexpected,
}


def install(app: Flask) -> None:
    """Answer every error as a problem. app: the application."""
    for kind, handler in _HANDLERS.items():
        app.register_error_handler(kind, handler)
