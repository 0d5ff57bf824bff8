"""The tables of an account over HTTP, and the notebook that reckons with them."""

import io
import json
import zipfile
from pathlib import Path
from typing import Any

import pyarrow.parquet as pq
import pytest

from reedmace.command.mariadb import MariaDB
from reedmace.database import connect
from reedmace.demo import write_demo

NOTEBOOK = Path(__file__).parents[2] / "docs" / "reckon.ipynb"


def test_the_notebook_runs_on_the_demos_file(
    mariadb: MariaDB, visitor, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    write_demo(connect(mariadb.app_url))
    visit = visitor()
    assert visit.enter("POST", "/api/session/demo", {}).status_code == 201
    answer = visit.get("/api/account/tables.zip?as=parquet")
    assert answer.status_code == 200
    (tmp_path / "reedmace-parquet.zip").write_bytes(answer.data)
    monkeypatch.chdir(tmp_path)
    names: dict[str, Any] = {}
    for cell in json.loads(NOTEBOOK.read_text())["cells"]:
        if cell["cell_type"] == "code":
            exec("".join(cell["source"]), names)  # noqa: S102 - our own notebook
    assert names["units"]["readings", "ammonia_mg_n_l"] == "mg N/L"
    assert any(names["rates"].values())
    assert names["changed"]


def test_only_ones_own_tanks_are_in_it_archived_ones_too(keeper, visitor) -> None:
    kept, put_away = keeper.tank("Kept"), keeper.tank("Put away")
    keeper.write(put_away, {"kind": "note", "text": "in a box now"})
    put = keeper.send("POST", f"/api/tanks/{put_away}/archive")
    assert put.status_code < 300, put.json
    other = visitor()
    other.enter("POST", "/api/session/guest", {})
    other.tank("Another's")
    packed = zipfile.ZipFile(io.BytesIO(keeper.get("/api/account/tables.zip").data))
    tanks = pq.read_table(io.BytesIO(packed.read("tanks.parquet"))).to_pylist()
    mine = {t["tank_id"]: t["archived"] for t in tanks}
    assert mine == {kept: False, put_away: True}
    assert "in a box now" in str(pq.read_table(io.BytesIO(packed.read("entries.parquet")))["body"].to_pylist())


def test_who_is_not_signed_in_and_another_form_are_told(keeper, visitor) -> None:
    assert visitor().get("/api/account/tables.zip").status_code == 401
    assert keeper.get("/api/account/tables.zip?as=xlsx").status_code == 422
