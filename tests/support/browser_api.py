"""What a test writes behind the screen: history a keeper would have made over weeks."""

from datetime import UTC, datetime, timedelta
from typing import Any

from playwright.sync_api import Page


def send(page: Page, url: str, method: str, path: str, body: Any = None) -> Any:
    """A call with the page's own cookies."""
    token = page.request.get(f"{url}/api/session").json()["csrf_token"]
    response = page.request.fetch(f"{url}{path}", method=method, data=body, headers={"X-CSRF-Token": token})
    assert response.ok, response.text()
    return response.json()


def write(page: Page, url: str, tank: int, days_ago: float, body: dict[str, Any], number: int) -> None:
    """One entry, `days_ago` days back."""
    at = (datetime.now(UTC) - timedelta(days=days_ago)).isoformat()
    send(page, url, "POST", f"/api/tanks/{tank}/entries", {"key": f"history-{number:04d}", "at": at, "body": body})


def cycled_tank(page: Page, url: str) -> int:
    """A tank whose last two doses were seen in the water and gone within a day."""
    tank: int = send(page, url, "POST", "/api/tanks", {"name": "Done"})["id"]
    start = (datetime.now(UTC) - timedelta(days=40)).isoformat()
    rows: list[tuple[float, dict[str, Any]]] = [
        (40, {"kind": "cycle-plan", "started_at": start, "start_kh_dkh": 8}),
        (40, {"kind": "dose", "raise_mg_n_l": 1.5}),
        *[
            (40 - d, {"kind": "reading", "ammonia_ppm": a, "nitrite_ppm": n, "nitrate_ppm": 5, "kh_dkh": 7})
            for d, a, n in ((5, 2, 0), (12, 0.5, 1), (20, 0, 4), (30, 0, 1))
        ],
        (16, {"kind": "dose", "raise_mg_n_l": 1.0}),
        (2.1, {"kind": "dose", "raise_mg_n_l": 0.6}),
        (2.05, {"kind": "reading", "ammonia_ppm": 0.75}),
        (1.1, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 40}),
        (1.1, {"kind": "dose", "raise_mg_n_l": 0.6}),
        (1.05, {"kind": "reading", "ammonia_ppm": 0.75}),
        (0.1, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 45}),
    ]
    for number, (days_ago, body) in enumerate(rows):
        write(page, url, tank, days_ago, body, number)
    return tank
