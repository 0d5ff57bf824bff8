"""Whatever a client sends, the answer is a clear refusal or a clear answer: never our own fault, never a tank lost by
it.
"""

import json
import re
import xml.etree.ElementTree as ET
from typing import Any

import pytest

EARLY, LATE = "0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00"
HUGE_CELL = '"' + "x" * 200_000 + '"'
FILES = {
    "a year too early": "at,ammonia_ppm\n0001-01-01T00:00+05:00,1\n",
    "a year too late": "at,ammonia_ppm\n9999-12-31T23:59-05:00,1\n",
    "a header without end": f"{HUGE_CELL},b\n1,2\n",
    "a cell without end": f"at,ammonia_ppm\n{HUGE_CELL},1\n",
    "no figure that is one": "at,ammonia_ppm\n2026-01-01,1e400\n2026-01-02,nan\n",
    "a thousand columns": ",".join(f"c{n}" for n in range(1000)) + "\n",
    "rows without end": "at,ammonia_ppm\n" + "x,1\n" * 60_000,
}


def post(keeper, path: str, text: str):
    headers = {"X-CSRF-Token": keeper.token, "Content-Type": "application/json"}
    return keeper.client.post(path, data=text, headers=headers)


@pytest.mark.parametrize("text", FILES.values(), ids=FILES.keys())
def test_a_file_that_is_none_is_refused_with_its_lines(keeper, text: str) -> None:
    tank = keeper.tank()
    headers = {"X-CSRF-Token": keeper.token, "Content-Type": "text/csv"}
    taken = keeper.client.post(f"/api/tanks/{tank}/readings.csv", data=text.encode(), headers=headers)
    assert taken.status_code == 422
    assert 1 <= len(taken.json["errors"]) <= 50
    shown = keeper.send("POST", f"/api/tanks/{tank}/readings/preview", {"text": text, "zone_offset_minutes": 840})
    assert shown.status_code == 200
    assert shown.json["faults"]
    assert shown.json["good"] == 0
    assert keeper.client.post("/api/shelf.csv", data=text.encode(), headers=headers).status_code == 422


@pytest.mark.parametrize("at", [EARLY, LATE])
@pytest.mark.parametrize(
    "body",
    [
        {"kind": "note", "text": "x"},
        {"kind": "cycle-plan", "started_at": "AT"},
        {"kind": "situation", "stands": "running", "since": "AT"},
    ],
    ids=lambda b: b["kind"],
)
def test_a_time_no_sum_can_hold_is_refused_and_the_tank_stays_open(keeper, body: dict[str, Any], at: str) -> None:
    tank = keeper.tank()
    sent = {key: at if value == "AT" else value for key, value in body.items()}
    answer = keeper.write(tank, sent, **({"at": at} if body["kind"] == "note" else {}))
    assert answer.status_code == 422
    assert "between 1990 and 2200" in json.dumps(answer.json)
    assert keeper.get(f"/api/tanks/{tank}").status_code == 200
    assert keeper.get("/api/today").status_code == 200


@pytest.mark.parametrize(
    "key", ["k" * 5000, "key-\ud800aaaa", "key with blank ", ""], ids=["long", "half a character", "blank", "none"]
)
def test_a_bundle_with_a_key_that_is_none_is_refused_whole(keeper, key: str) -> None:
    entry = {
        "id": 1,
        "at": "2026-01-01T00:00:00Z",
        "written_at": "2026-01-01T00:00:00Z",
        "body": {"kind": "note", "text": "x"},
    }
    bundle = {"version": 2, "written_at": "2026-01-01T00:00:00Z", "tank": "Odd", "entries": [{**entry, "key": key}]}
    assert post(keeper, "/api/bundles", json.dumps(bundle)).status_code == 422
    assert all(t["name"] != "Odd" for t in keeper.get("/api/tanks").json["tanks"])


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("/api/tanks", {"name": "\ud800x"}),
        ("/api/session", {"email": "\ud800@b.example", "password": "x\ud800"}),
        ("/api/account", {"email": "a@b.example", "password": "long enough \ud800"}),
    ],
    ids=["a name", "an address", "a password"],
)
def test_half_a_character_is_refused(keeper, path: str, body: dict[str, Any]) -> None:
    assert post(keeper, path, json.dumps(body)).status_code in (401, 422)


@pytest.mark.parametrize(
    "path",
    ["/" + "x" * 5000, "/assets/" + "a" * 300, "/%00", "/..%2f..%2fetc/passwd", "/api/tanks/999999999999999999999999"],
    ids=["long path", "long name", "null", "upwards", "a number without end"],
)
def test_an_address_that_is_none_is_not_our_fault(keeper, path: str) -> None:
    assert keeper.get(path).status_code in (200, 404)


def test_nesting_without_end_is_refused(keeper) -> None:
    assert post(keeper, "/api/compute/tank-volume", "[" * 100_000).status_code in (400, 422)


def test_a_name_with_control_characters_makes_no_broken_file(keeper) -> None:
    tank = keeper.tank("=cmd()|x\x0b\x01")
    keeper.write(tank, {"kind": "cycle-plan", "started_at": "2026-05-01T08:00:00Z"})
    answer = keeper.get(f"/api/tanks/{tank}/cycle.sbml")
    assert answer.status_code == 200
    ET.fromstring(answer.get_data())  # noqa: S314 - our own answer


def test_built_files_go_out_pressed_and_answers_too_where_the_browser_takes_it(mariadb, tmp_path) -> None:
    import brotli

    from reedmace.api import Settings, create_app

    (tmp_path / "assets").mkdir()
    (tmp_path / "index.html").write_text("<!doctype html><title>Reedmace</title>")
    script = b"export const reeds = 1;\n" * 400
    (tmp_path / "assets" / "index-abc123.js").write_bytes(script)
    (tmp_path / "assets" / "index-abc123.js.br").write_bytes(brotli.compress(script))
    settings = Settings(database_url=mariadb.app_url, secret_key="t", front_end=tmp_path)
    client = create_app(settings).test_client()
    taken = {"Accept-Encoding": "br, gzip"}
    with client.get("/assets/index-abc123.js", headers=taken) as pressed:
        assert pressed.headers["Content-Encoding"] == "br"
        assert brotli.decompress(pressed.data) == script
        assert "immutable" in pressed.headers["Cache-Control"]
        assert "default-src 'none'" in pressed.headers["Content-Security-Policy"]
    with client.get("/assets/index-abc123.js") as plain:
        assert plain.data == script
        assert "Content-Encoding" not in plain.headers
    # No file of that name is the page's own business; an address that climbs out is refused.
    with client.get("/assets/gone.js", headers=taken) as page:
        assert page.data.startswith(b"<!doctype html>")
    for path in ("/assets/../index.html", "/assets/../../etc/passwd"):
        assert client.get(path, headers=taken).status_code == 404
    tables = client.get("/api/compute", headers=taken)
    assert tables.headers["Content-Encoding"] == "br"
    assert len(tables.data) < len(client.get("/api/compute").data) / 4
    assert tables.headers["Cache-Control"] == "private, no-cache"


def test_with_a_page_goes_a_word_of_what_it_will_ask_for(mariadb, tmp_path) -> None:
    from reedmace.api import Settings, create_app

    chunks = {
        "index.html": {"file": "assets/index-1.js", "imports": ["_kit.js"]},
        "_kit.js": {"file": "assets/kit-1.js"},
        "_chart.js": {"file": "assets/chart-1.js", "imports": ["_kit.js"]},
        "src/app/TankPage.tsx": {"file": "assets/TankPage-1.js", "imports": ["index.html", "_kit.js"]},
        "src/stages/filter/FilterStage.tsx": {"file": "assets/FilterStage-1.js", "imports": ["_chart.js", "_kit.js"]},
    }
    (tmp_path / "index.html").write_text('<!doctype html><html data-session="%SESSION%"><title>Reedmace</title>')
    (tmp_path / "made-of.json").write_text(json.dumps(chunks))
    client = create_app(Settings(database_url=mariadb.app_url, secret_key="t", front_end=tmp_path)).test_client()
    parts = [f"</assets/{name}-1.js>; rel=modulepreload" for name in ("TankPage", "FilterStage", "chart")]
    # What the page brings in any case is not named again, and who has no session is not asked about tanks.
    with client.get("/tanks/7/filter") as page:
        assert page.headers["Link"] == ", ".join(parts)
        assert b'data-session="none"' in page.data
    token = client.get("/api/session").json["csrf_token"]
    with client.get("/tanks/7/filter") as page:
        assert page.headers["Link"] == ", ".join(parts)
    assert client.post("/api/session/guest", json={}, headers={"X-CSRF-Token": token}).status_code == 201
    with client.get("/tanks/7/filter") as page:
        assert b'data-session="kept"' in page.data
        asked = [
            f"<{w}>; rel=preload; as=fetch; crossorigin=anonymous"
            for w in ("/api/session", "/api/tanks/7", "/api/compute")
        ]
        assert page.headers["Link"] == ", ".join([*parts, *asked])
    for path in ("/tanks/7/nowhere", '/tanks/x"y/filter', "/account", "/look/secret"):
        with client.get(path) as page:
            assert page.status_code == 200
            assert "Link" not in page.headers


def test_what_is_the_same_for_all_is_sent_once_and_then_only_vouched_for(keeper) -> None:
    first = keeper.get("/api/compute")
    assert first.status_code == 200
    again = keeper.client.get("/api/compute", headers={"If-None-Match": first.headers["ETag"]})
    assert (again.status_code, again.data) == (304, b"")
    other = keeper.client.get("/api/compute", headers={"If-None-Match": '"another"'})
    assert (other.status_code, other.headers["ETag"]) == (200, first.headers["ETag"])
    # What is one keeper's own is kept nowhere on the way.
    assert keeper.get("/api/tanks").headers["Cache-Control"] == "no-store"
    assert "ETag" not in keeper.get("/api/tanks").headers


def test_only_styles_under_this_answers_own_word_are_let_in(mariadb, tmp_path) -> None:
    from reedmace.api import Settings, create_app

    (tmp_path / "index.html").write_text('<!doctype html><meta property="csp-nonce" content="%NONCE%"><title>R</title>')
    client = create_app(Settings(database_url=mariadb.app_url, secret_key="t", front_end=tmp_path)).test_client()
    words = set()
    for path in ("/", "/today", "/index.html", "/api/reference"):
        with client.get(path) as page:
            text = page.get_data(as_text=True)
            (word,) = re.findall(r"style-src 'self' 'nonce-([\w-]{20,})';", page.headers["Content-Security-Policy"])
            assert f'content="{word}"' in text or f"<style nonce='{word}'>" in text
            words.add(word)
    assert len(words) == 4
    answer = client.get("/api/compute")
    assert "style-src 'self';" in answer.headers["Content-Security-Policy"]
    assert "unsafe-inline" not in answer.headers["Content-Security-Policy"]
