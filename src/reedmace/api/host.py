"""The Host header of a request: one, well formed, and among the operator's where those are named.

Links that are handed out begin with it, so a host that somebody else chose must not stand in them.
"""

import re
from functools import partial

from apiflask import APIFlask
from flask import request
from werkzeug.sansio.utils import host_is_trusted

from reedmace.api.problems import ProblemError

_HOST = re.compile(r"[A-Za-z0-9._-]+(:\d{1,5})?|\[[0-9A-Fa-f:.]+\](:\d{1,5})?")
PROBES = ("/healthz", "/readyz")
"""Asked for by address, by whatever watches the machine."""


def install(app: APIFlask, hosts: tuple[str, ...]) -> None:
    """Refuse requests for another host. hosts: of this installation, ".example" with all below it; empty for any."""
    app.before_request(partial(_check, hosts))


def _check(hosts: tuple[str, ...]) -> None:
    named = request.environ.get("HTTP_HOST", "")
    # HTTP/1.0 has no such header; two of them arrive joined by a comma (RFC 9112 section 3.2).
    if not named and request.environ.get("SERVER_PROTOCOL") == "HTTP/1.0":
        return
    if not _HOST.fullmatch(named):
        raise ProblemError(400, "Host not understood", "A request names one host, in its Host header, and no more.")
    if hosts and request.path not in PROBES and not host_is_trusted(named, hosts):
        raise ProblemError(
            400,
            "Not a host of this installation",
            "Ask for it by the address you were given. Whoever runs it names its hosts in REEDMACE_HOSTS.",
        )
