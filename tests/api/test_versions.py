"""A plan whose version is anything at all, by every way in: refused with its field, or taken; never a fault of ours."""

from datetime import UTC, datetime

import pytest

KINDS = ("tank-plan", "stock-plan", "filter-plan", "fit-plan", "cycle-plan", "kit-plan")
VERSIONS: tuple[object, ...] = ("x", [], {}, None, 10**300, -1, 2.5, True)


@pytest.mark.parametrize("kind", KINDS)
def test_entries_views_and_bundles_refuse_a_version_that_is_none(keeper, kind: str) -> None:
    tank, now = keeper.tank(), datetime.now(UTC).isoformat()
    for version in VERSIONS:
        body = {"kind": kind, "version": version}
        written = keeper.write(tank, body)
        assert written.status_code in (201, 409, 422)
        name = kind.replace("-", "_")
        assert keeper.send("POST", f"/api/tanks/{tank}/views/filter", {name: body}).status_code in (200, 422)
        entry = {"id": 1, "key": "from-a-bundle", "at": now, "written_at": now, "body": body}
        bundle = {"format": "reedmace-bundle", "version": 2, "written_at": now, "tank": "B", "entries": [entry]}
        assert keeper.send("POST", "/api/bundles", bundle).status_code in (201, 422)


def test_a_room_whose_keys_are_no_numbers_is_copied_without_them() -> None:
    from reedmace.logbook.plans.room_plan import RoomPlan, for_copies

    plan = RoomPlan(open_shares={"²-a": 0.5, "9" * 5000 + "-a": 0.5, "-": 0.1, "7-f1": 0.4})
    assert for_copies(plan, {7: 12}).open_shares == {"12-f1": 0.4}
