"""A port to listen on, below those of outgoing connections."""

import random
import socket
from pathlib import Path

LOWEST_PORT = 15_000


_CHOICE = random.SystemRandom()


def free_port() -> int:
    """A free TCP port below those the system gives to outgoing connections.

    Any of those may take it between two starts of a server, which then could not come back on its address.
    """
    while True:
        port = _CHOICE.randrange(LOWEST_PORT, max(lowest_outgoing_port(), LOWEST_PORT + 1000))
        with socket.socket() as s:
            s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                s.bind(("127.0.0.1", port))
            except OSError:
                continue
            return port


def lowest_outgoing_port() -> int:
    """The lowest port Linux gives to outgoing connections."""
    try:
        return int(Path("/proc/sys/net/ipv4/ip_local_port_range").read_text().split()[0])
    except (OSError, ValueError, IndexError):
        return 32_768
