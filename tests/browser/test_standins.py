"""`./reedmace standin`: every simulated device against a running Reedmace, through the device interface."""

import pytest
from playwright.sync_api import Page

from reedmace.command import STANDINS
from reedmace.command.simulated_device import standin
from tests.support.browser_api import send
from tests.support.running import Running

KEPT = {
    "flow-meter": ("timed-flow", "measured_lph"),
    "smart-plug": ("outage", "running"),
    "test-kit": ("reading", "nitrite_ppm"),
    "thermometer": ("reading", "temperature_c"),
    "ph-probe": ("reading", "ph"),
}


def made(page: Page, url: str, kind: str) -> tuple[int, str]:
    tank = send(page, url, "POST", "/api/tanks", {"name": f"With a {kind}"})["id"]
    answer = send(page, url, "POST", f"/api/tanks/{tank}/devices", {"name": kind, "kind": kind})
    return tank, answer["token"]


@pytest.mark.parametrize("kind", STANDINS)
def test_a_device_sends_its_days_and_a_second_run_of_them_adds_little(
    page: Page, new_keeper: str, running: Running, capsys: pytest.CaptureFixture[str], kind: str
) -> None:
    tank, token = made(page, running.url, kind)
    assert standin(kind, running.url, token, 8, 600 if kind == "flow-meter" else 12) == 0
    said = capsys.readouterr().out.split()
    sent, written = int(said[1]), int(said[3])
    assert 0 < written <= sent
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries")["entries"]
    body_kind, field = KEPT[kind]
    bodies = [e["body"] for e in entries if e["body"]["kind"] == body_kind]
    assert len(bodies) == written
    assert all(b[field] is not None for b in bodies)
    # Only what this device reads: a thermometer says nothing of nitrite.
    if body_kind == "reading":
        others = {"ammonia_ppm", "nitrite_ppm", "nitrate_ppm", "ph", "kh_dkh", "temperature_c"} - {
            "test-kit": {"ammonia_ppm", "nitrite_ppm", "nitrate_ppm", "kh_dkh", "ph"},
            "thermometer": {"temperature_c"},
            "ph-probe": {"ph"},
        }[kind]
        assert all(b.get(name) is None for b in bodies for name in others)


def test_a_wrong_token_and_an_address_with_nobody_there_are_said(
    page: Page, new_keeper: str, running: Running, capsys: pytest.CaptureFixture[str]
) -> None:
    assert standin("thermometer", running.url, "not-a-token", 1, 0) == 2
    assert "refused (401)" in capsys.readouterr().err
    assert standin("thermometer", "http://127.0.0.1:9", "any", 1, 0) == 2
    assert "cannot be reached" in capsys.readouterr().err
