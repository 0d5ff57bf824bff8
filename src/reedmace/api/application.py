"""The Flask application factory. The application keeps no state between requests."""

import os
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import partial
from pathlib import Path
from typing import Any

import peewee
from apiflask import APIFlask
from argon2 import PasswordHasher
from flask import Response, g, request
from flask_compress import Compress
from flask_login import LoginManager
from werkzeug.middleware.proxy_fix import ProxyFix

from reedmace import __version__
from reedmace.api import (
    accounts,
    archive,
    broods,
    bulk_settings,
    bundles,
    calendar,
    compute,
    concurrency,
    counter,
    cycle,
    devices,
    events_csv,
    host,
    idempotency,
    monitoring,
    notices,
    photos,
    practice,
    practice_classes,
    problems,
    read_tokens,
    recovery,
    reference,
    room_files,
    rooms,
    rounds,
    sharing,
    shelf,
    stage_views,
    static_site,
    tanks,
    today,
    units,
)
from reedmace.api.json_provider import PydanticJSONProvider
from reedmace.api.openapi_models import describe
from reedmace.api.session import CurrentKeeper, check_csrf
from reedmace.database import ANSWER_S, connect
from reedmace.notices import MailServer, server_of
from reedmace.store import SIGN_UPS_AN_HOUR, SIGNED_IN_FOR, Accounts

SAME_FOR_ALL = ("/api/compute", "/api/compute/kinds", "/api/openapi.json")
"""Endpoints whose answers depend only on the program and the units; they carry an ETag."""


SECRET_PATHS = ("/look/", "/join/", "/shelf/", "/api/look/", "/api/invites/", "/api/shelf/shown/")
"""Addresses that are secrets themselves: they send no referrer and are not indexed."""


@dataclass(frozen=True)
class Settings:
    """Settings of an operator."""

    database_url: str
    secret_key: str
    demo: bool = False
    behind_tls: bool = False
    front_end: Path | None = None
    quick_hash: bool = False
    sign_ups_an_hour: int = SIGN_UPS_AN_HOUR
    metrics: bool = False
    shelf: Path | None = None
    """A file of boxes that every account sees on its shelf, as CSV."""
    mail: MailServer | None = None
    """The server that mail goes out by; without one nothing is mailed."""
    mail_folder: Path | None = None
    """Where the demo's simulated mail server keeps what arrived."""
    public_url: str = ""
    """Address of this installation in mails."""
    hosts: tuple[str, ...] = ()
    """Hosts it answers to, ".example" with all below it; any where none is named."""
    database_answer_s: float = ANSWER_S
    """How long the database may keep silent before a request is answered with 503, s."""

    @classmethod
    def from_environment(cls) -> "Settings":
        """Settings from REEDMACE_* variables. KeyError names one that is missing."""
        front = os.environ.get("REEDMACE_FRONT_END")
        return cls(
            database_url=os.environ["REEDMACE_DATABASE_URL"],
            secret_key=os.environ["REEDMACE_SECRET_KEY"],
            demo=os.environ.get("REEDMACE_DEMO") == "1",
            behind_tls=os.environ.get("REEDMACE_BEHIND_TLS") == "1",
            front_end=Path(front) if front else None,
            metrics=os.environ.get("REEDMACE_METRICS") == "1",
            mail=server_of(
                os.environ.get("REEDMACE_SMTP", ""),
                os.environ.get("REEDMACE_MAIL_FROM", ""),
                standin=bool(os.environ.get("REEDMACE_MAIL_FOLDER")),
            ),
            mail_folder=Path(folder) if (folder := os.environ.get("REEDMACE_MAIL_FOLDER")) else None,
            public_url=os.environ.get("REEDMACE_PUBLIC_URL", ""),
            shelf=Path(boxes) if (boxes := os.environ.get("REEDMACE_SHELF")) else None,
            hosts=tuple(h.strip() for h in os.environ.get("REEDMACE_HOSTS", "").split(",") if h.strip()),
            sign_ups_an_hour=int(os.environ.get("REEDMACE_SIGN_UPS", SIGN_UPS_AN_HOUR)),
            database_answer_s=float(os.environ.get("REEDMACE_DATABASE_ANSWER_S", ANSWER_S)),
        )


_RESOURCES = (
    accounts,
    recovery,
    tanks,
    archive,
    stage_views,
    today,
    cycle,
    notices,
    photos,
    broods,
    bundles,
    read_tokens,
    calendar,
    devices,
    events_csv,
    rooms,
    rounds,
    room_files,
    bulk_settings,
    sharing,
    shelf,
    compute,
    counter,
    practice,
    practice_classes,
    reference,
)
"""Modules of the API, in the order of its description."""


def _config(settings: Settings) -> dict[str, Any]:
    return dict(
        SECRET_KEY=settings.secret_key,
        SESSION_COOKIE_NAME="reedmace",
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_SECURE=settings.behind_tls,
        PERMANENT_SESSION_LIFETIME=SIGNED_IN_FOR,
        # A late response after sign-out must not restore the old cookie.
        SESSION_REFRESH_EACH_REQUEST=False,
        MAX_CONTENT_LENGTH=2_000_000,
        OPENAPI_VERSION="3.1.0",
        DESCRIPTION="Choose, fit and cycle an aquarium filter. Every error is an RFC 9457 problem.",
        SYNC_LOCAL_SPEC=False,
        VALIDATION_ERROR_STATUS_CODE=422,
        AUTO_404_RESPONSE=False,
    )


def create_app(settings: Settings) -> APIFlask:
    """The application. settings: see Settings."""
    app = APIFlask(
        __name__,
        title="Reedmace",
        version=__version__,
        docs_path=None,
        spec_path="/api/openapi.json",
        static_folder=None,  # type: ignore[arg-type]
    )
    app.config.update(_config(settings))
    app.json = PydanticJSONProvider(app)
    app.config["REEDMACE"] = settings
    app.config["REEDMACE_SHELF"] = shelf.read_given(settings.shelf)
    if settings.behind_tls:
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=1, x_proto=1)  # type: ignore[method-assign]
    # Tests hash cheaply; every other run uses argon2id at the library's recommended cost.
    hasher = PasswordHasher(time_cost=1, memory_cost=1024, parallelism=1) if settings.quick_hash else PasswordHasher()

    database = connect(settings.database_url, settings.database_answer_s)
    app.extensions["database"] = database
    monitoring.install(app, database, metrics=settings.metrics, behind_tls=settings.behind_tls)
    host.install(app, settings.hosts)
    app.before_request(partial(_open_database, database, hasher, settings.sign_ups_an_hour))
    app.before_request(reference.build_once)
    app.before_request(practice.follow_practice_clock)
    app.teardown_request(_close_database)
    app.after_request(partial(_add_headers, settings))
    login = LoginManager(app)
    login.session_protection = None
    login.user_loader(_load_keeper)

    units.install(app)
    problems.install(app)
    concurrency.install(app)
    for module in _RESOURCES:
        app.register_blueprint(module.blueprint)
    app.spec_processor(partial(describe, app))
    # Responses are compressed; the cookie is SameSite, so other pages cannot trigger compression of ours beside their
    # input.
    app.config |= {"COMPRESS_MIMETYPES": ["application/json", "application/problem+json", "text/csv"]}
    app.config |= {"COMPRESS_ALGORITHM": ["br", "gzip"], "COMPRESS_BR_LEVEL": 4, "COMPRESS_LEVEL": 5}
    Compress(app)
    # These read and change the answer as it was made, so they come before it is compressed: the last one first.
    units.install_decimals(app)
    idempotency.install(app)
    static_site.install(app, settings.front_end)
    return app


def _open_database(database: peewee.MySQLDatabase, hasher: PasswordHasher, sign_ups: int) -> None:
    g.now = datetime.now(UTC)
    if not request.path.startswith("/api/") or request.path.startswith(
        ("/api/compute", "/api/counter", "/api/openapi", "/api/reference")
    ):
        return
    database.connect(reuse_if_open=True)
    g.database = database
    g.accounts = Accounts(database, hasher, sign_ups)
    check_csrf()


def _close_database(_: BaseException | None) -> None:
    database = g.pop("database", None)
    if database is not None and not database.is_closed():
        database.close()


def _add_headers(settings: Settings, response: Response) -> Response:
    own_policy = response.headers.get("Content-Security-Policy")
    response.headers.update(static_site.FIXED)
    response.headers["Content-Security-Policy"] = own_policy or static_site.content_security_policy()
    if request.path.startswith((*SECRET_PATHS, *notices.SECRET_PATHS)):
        # The address is the secret: no referrer, no indexing.
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["X-Robots-Tag"] = "noindex, nofollow"
    if settings.behind_tls:
        response.headers["Strict-Transport-Security"] = "max-age=31536000"
    if request.path in SAME_FOR_ALL and request.method in ("GET", "HEAD") and response.status_code == 200:
        # ETag by content, so every worker and machine computes the same.
        response.headers["Cache-Control"] = "private, no-cache"
        response.vary.add("Reedmace-Units")
        response.add_etag()
        response.make_conditional(request)
        return response
    # A picture never changes under its address, and says so itself.
    if request.path.startswith("/api/") and "immutable" not in response.headers.get("Cache-Control", ""):
        response.headers["Cache-Control"] = "no-store"
    return response


def _load_keeper(token: str) -> CurrentKeeper | None:
    keeper = g.accounts.find(token, g.now.replace(tzinfo=None)) if "accounts" in g else None
    return CurrentKeeper(keeper, token) if keeper else None
