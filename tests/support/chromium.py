"""How the tests start Debian's Chromium, and what their pages are like."""

from typing import Any

_QUIET = ("background-networking", "component-update", "sync", "default-apps", "domain-reliability")
LAUNCH: dict[str, Any] = {
    "executable_path": "/usr/bin/chromium",
    "args": [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        *(f"--disable-{what}" for what in _QUIET),
    ],
}
"""Headless, as root, and silent on the network."""
CONTEXT: dict[str, Any] = {
    "viewport": {"width": 1280, "height": 800},
    "reduced_motion": "reduce",
    "locale": "en-GB",
    "timezone_id": "Europe/London",
}
"""A kitchen-table laptop."""
