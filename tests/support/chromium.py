"""How the tests start Debian's Chromium, and what their pages are like."""

from typing import Any

import pytest

_QUIET = ("background-networking", "component-update", "sync", "default-apps", "domain-reliability")
LAUNCH: dict[str, Any] = {
    "executable_path": "/usr/bin/chromium-headless-shell",
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
    # A new context would fetch and keep the whole shell, a third of the processor's time of a page.
    "service_workers": "block",
}
"""A kitchen-table laptop, without a service worker."""
with_service_worker = pytest.mark.browser_context_args(service_workers="allow")
"""Mark of a test in which a page is opened without a connection."""
