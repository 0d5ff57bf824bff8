"""One web worker: the application behind a loop that reads a whole request before a thread is given to it.

So a client that sends half a request, or nothing at all, costs a little memory and no keeper's time.
"""

import gc
import signal
import socket
import sys
import threading
from types import FrameType

import waitress

from reedmace.api import Settings, create_app
from reedmace.command.warm import warm

THREADS = 8
SILENT_S = 30
"""A connection on which nothing has come or gone for so long is closed."""
MOST_CONNECTIONS = 2000
LARGEST_BODY = 48_000_000
"""Bytes. Over 2 MB, or over this for a logbook that comes back, the application says no in words; the loop stops the rest."""


def _stop(_: int, __: FrameType | None) -> None:
    raise SystemExit(0)


def _settle() -> None:
    warm()
    # What is there from the start stays: looking through it again for garbage cost a long list a tenth of a second.
    gc.collect()
    gc.freeze()


def serve(listener: socket.socket) -> None:
    """Answer until told to stop. listener: bound, shared with the other workers."""
    settings = Settings.from_environment()
    application = create_app(settings)
    # The compiled sums are loaded beside the first answers: after a crash keepers wait for neither.
    threading.Thread(target=_settle, daemon=True).start()
    signal.signal(signal.SIGTERM, _stop)
    waitress.serve(
        application,
        sockets=[listener],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=SILENT_S,
        cleanup_interval=5,
        max_request_body_size=LARGEST_BODY,
        max_request_header_size=32_768,
        asyncore_use_poll=True,
        # A look at what comes next tells whether the client is still there: a sum nobody waits for is not begun.
        channel_request_lookahead=1,
        # Behind a proxy the application itself trusts one hop; without one nobody's word is taken.
        clear_untrusted_proxy_headers=not settings.behind_tls,
        ident="",
        _quiet=True,
    )


if __name__ == "__main__":
    serve(socket.socket(fileno=int(sys.argv[1])))
