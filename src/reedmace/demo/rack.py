"""The demo rack: nine small tanks on one air pump and a main. Invented, as all of Fennel Yard."""

from datetime import datetime, timedelta
from typing import Any

from reedmace.core.air.plan import RoomPump
from reedmace.demo.builders import Row, installed
from reedmace.logbook.plans.room_plan import AirMain, OnWall, RoomPlan, Shelf, Spot, WallPump

ROOM = "The rack"
LONG, MIDDLE, SMALL = (60, 30, 36), (45, 28, 30), (40, 25, 28)


def _tank(
    now: datetime,
    size: tuple[int, int, int],
    sponge: str,
    animals: list[tuple[str, int, float | None]],
    months: float,
    squeezed: float,
    fill_s: float,
) -> list[Row]:
    """A small tank that has run for months.

    Its sizes, sponge, animals (species, count, length today), days since the last squeeze, and seconds half a litre
    took to come out.
    """
    begun, (length, width, height) = 30.4 * months, size
    stock: dict[str, Any] = {
        "kind": "stock-plan",
        "animals": [{"species_id": s, "count": n, "length_cm": cm} for s, n, cm in animals],
    }
    tank = {
        "length_cm": length,
        "width_cm": width,
        "height_cm": height,
        "glass_mm": 4,
        "fill_below_rim_cm": 3,
        "substrate_depth_cm": 2,
    }
    place = {
        "behind_cm": 8,
        "stand_height_cm": 80,
        "sockets": 0,
        "room": "fish-room",
        "tanks_here_count": 9,
        "temperature_c": 24,
        "planted": True,
    }
    rows: list[Row] = [
        (begun, {"kind": "tank-plan", "tank": tank, "surroundings": place}),
        (begun, stock),
        (begun, {"kind": "filter-plan", "filters": installed(sponge, owned=True), "air": {"source": "room"}}),
        (begun, {"kind": "situation", "stands": "running", "since": (now - timedelta(days=begun + 60)).isoformat()}),
        (squeezed, {"kind": "media-work", "what": "rinsed", "share": 1, "filter_key": "f1"}),
        (19, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 15, "ph": 7.6, "kh_dkh": 6}),
        (21, {"kind": "flow-test", "container_l": 0.5, "times_s": [fill_s, fill_s - 0.2, fill_s + 0.3]}),
        *((day, {"kind": "water-change", "share": 0.25}) for day in (17, 10, 3)),
        (3 - 0.02, {"kind": "care", "what": "plugs"}),
    ]
    return rows


def rack(now: datetime) -> list[tuple[str, list[Row]]]:
    """Every tank of the rack with its logbook. now: aware time."""
    tanks: list[tuple[str, list[Row]]] = [
        ("Rack 1", _tank(now, LONG, "burreed-20", [("guppy", 12, None)], 14, 31, 12.3)),
        ("Rack 2", _tank(now, LONG, "burreed-20", [("platy", 8, None)], 14, 12, 12.0)),
        ("Rack 3", _tank(now, LONG, "rushlight-pair", [("swordtail", 5, None)], 9, 20, 11.4)),
        ("Rack 4", _tank(now, MIDDLE, "burreed-8", [("cherry-shrimp", 40, None)], 11, 29, 24.5)),
        ("Rack 5", _tank(now, MIDDLE, "burreed-8", [("endlers-livebearer", 10, None)], 11, 8, 23.4)),
        ("Rack 6", _tank(now, MIDDLE, "burreed-8", [("guppy", 25, 1.5)], 6, 14, 23.8)),
        ("Rack 7", _tank(now, SMALL, "starwort-nano", [("blue-velvet-shrimp", 25, None)], 7, 33, 34.6)),
        ("Rack 8", _empty(now)),
        ("Rack 9", _quarantine(now)),
    ]
    young: dict[str, list[tuple[float, str, int | None]]] = {
        "Rack 3": [(4, "free-swimming", None)],
        "Rack 5": [(23, "free-swimming", None), (9, "counted", 26), (2, "lost", 3)],
    }
    for name, rows in tanks:
        species = next((body["animals"][0]["species_id"] for _, body in rows if body["kind"] == "stock-plan"), "")
        for day, what, count in young.get(name, []):
            brood = {"kind": "brood", "brood": "demo-brood", "species_id": species, "what": what, "count": count}
            rows.append((day, brood))
        if name == "Rack 3":
            spare = {
                "kind": "seed",
                "name": "Spare sponge C",
                "text": "For the next brood in Rack 8.",
                "media_share": 0.5,
            }
            rows.append((20, spare))
    return tanks


def _empty(now: datetime) -> list[Row]:
    """Emptied last week; its sponge went to seed next door."""
    rows = _tank(now, SMALL, "starwort-nano", [], 5, 40, 33.0)
    kept = [r for r in rows if r[1]["kind"] in ("tank-plan", "filter-plan")]
    return [*kept, (8, {"kind": "note", "text": "Emptied and dried; free for the next brood."})]


def _quarantine(now: datetime) -> list[Row]:
    """Three new swordtails, in for five days with a seeded sponge, three weeks alone."""
    rows = _tank(now, SMALL, "duckweed-stone", [("swordtail", 3, 4)], 4, 6, 32.2)
    kept = [
        r
        for r in rows
        if r[1]["kind"] in ("tank-plan", "stock-plan", "filter-plan", "media-work", "flow-test", "water-change", "care")
    ]
    return [
        *kept,
        (
            9,
            {
                "kind": "cycle-plan",
                "started_at": (now - timedelta(days=9)).isoformat(),
                "method": "seeded-filter",
                "temperature_c": 24,
                "start_kh_dkh": 6,
                "start_ph": 7.6,
            },
        ),
        (5, {"kind": "stocking", "species_id": "swordtail", "count": 3}),
        (5.1, {"kind": "quarantine", "days": 21}),
        (5, {"kind": "note", "text": "Own net and bucket, by the door."}),
        (1, {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 5, "ph": 7.6, "kh_dkh": 6}),
    ]


def rack_plan(ids: list[int]) -> RoomPlan:
    """The rack's three shelves with their tanks, pump, main, sockets and sink. ids: of the tanks, in order."""
    shelves = [Shelf(y_cm=y, length_cm=200) for y in (30, 90, 145)]
    sizes = [LONG] * 3 + [MIDDLE] * 3 + [SMALL] * 3
    spots, x = [], 0.0
    for n, (tank_id, size) in enumerate(zip(ids, sizes, strict=True)):
        x = 4.0 if n % 3 == 0 else x
        spots.append(Spot(tank_id=tank_id, x_cm=x, shelf=n // 3))
        x += size[0] + 5
    pump = RoomPump(key="p1", name="The rack's pump", l_min=9, kpa=20, watts=8)
    return RoomPlan(
        width_cm=260,
        height_cm=220,
        shelves=shelves,
        spots=spots,
        sockets=[OnWall(x_cm=232, y_cm=150), OnWall(x_cm=240, y_cm=150)],
        sink=OnWall(x_cm=225, y_cm=85),
        pumps=[WallPump(x_cm=215, y_cm=195, pump=pump)],
        main=AirMain(y_cm=198, bore_mm=16, ring=True),
        open_shares={},
    )
