"""Health checks, request log and metrics.

Nothing here names a keeper, a tank or an address: routes stand by their pattern, requests by a number of their own.
"""

import json
import logging
import os
import re
import secrets
import time

from apiflask import APIFlask
from flask import Response, g, request
from peewee import MySQLDatabase, PeeweeException
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Counter, Histogram, generate_latest
from prometheus_client.multiprocess import MultiProcessCollector

from reedmace.api.problems import ProblemError
from reedmace.database import AllBusy

SLOW_S = 2.0
"""Duration from which a request is logged, as every failed one is, s."""
_ID = re.compile(r"[A-Za-z0-9-]{8,64}")
_SHARED = "PROMETHEUS_MULTIPROC_DIR"
"""Directory where workers share their counters (prometheus-client's variable)."""
_OWN = CollectorRegistry()
REQUESTS = Counter("reedmace_requests", "Requests answered.", ["method", "route", "status"], registry=_OWN)
SECONDS = Histogram("reedmace_request_seconds", "Time to an answer.", ["route"], registry=_OWN)
SUMS = Histogram("reedmace_sum_seconds", "Time of a named computation over HTTP.", ["name"], registry=_OWN)
REFUSED = Counter("reedmace_refused", "Entries and files refused, by status.", ["status"], registry=_OWN)
LOG = logging.getLogger("reedmace.requests")


def install(app: APIFlask, database: MySQLDatabase, *, metrics: bool, behind_tls: bool) -> None:
    """Number and count every request, and serve /healthz, /readyz and, if enabled, /metrics.

    app: the application; database: asked whether it answers; metrics: whether /metrics is there, for this machine
    alone; behind_tls: a proxy stands in front, whose own request numbers are taken.
    """

    def begin() -> None:
        g.begun = time.perf_counter()
        sent = request.headers.get("X-Request-ID", "") if behind_tls else ""
        g.request_id = sent if _ID.fullmatch(sent) else secrets.token_hex(8)

    def healthz() -> Response:
        return Response("alive\n", mimetype="text/plain")

    def readyz() -> Response:
        try:
            with database.connection_context():
                database.execute_sql("SELECT 1 FROM tank LIMIT 1")  # type: ignore[no-untyped-call]
        except (PeeweeException, AllBusy, OSError) as error:
            app.logger.error("not ready: %s", error)
            return Response("the database does not answer\n", 503, mimetype="text/plain", headers={"Retry-After": "2"})
        return Response("ready\n", mimetype="text/plain")

    def read_metrics() -> Response:
        if not metrics or request.remote_addr not in ("127.0.0.1", "::1"):
            raise ProblemError(404, "Not found", "There is nothing here under that address.")
        registry = _OWN
        if os.environ.get(_SHARED):
            registry = CollectorRegistry()
            MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
        return Response(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)

    app.before_request(begin)
    app.after_request(_written)
    for path, view in (("/healthz", healthz), ("/readyz", readyz), ("/metrics", read_metrics)):
        app.add_url_rule(path, path.strip("/"), app.doc(hide=True)(view))


def _written(response: Response) -> Response:
    """Count a request and return its number; log it if it failed or was slow."""
    took = time.perf_counter() - g.get("begun", time.perf_counter())
    route = request.url_rule.rule if request.url_rule is not None else "none"
    response.headers["X-Request-ID"] = g.get("request_id", "")
    REQUESTS.labels(request.method, route, str(response.status_code)).inc()
    SECONDS.labels(route).observe(took)
    if route.startswith("/api/compute/") and request.method == "POST" and response.status_code == 200:
        SUMS.labels(request.path.rsplit("/", 1)[1]).observe(took)
    if request.method == "POST" and response.status_code in (409, 413, 422, 429) and "compute" not in route:
        REFUSED.labels(str(response.status_code)).inc()
    if response.status_code >= 500 or took > SLOW_S:
        LOG.warning(
            json.dumps(
                {
                    "id": g.get("request_id", ""),
                    "method": request.method,
                    "route": route,
                    "status": response.status_code,
                    "ms": round(took * 1000),
                }
            )
        )
    return response
