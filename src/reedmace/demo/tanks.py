"""The tanks of Fennel Yard, each as its keeper's entries."""

from datetime import datetime, timedelta

from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.demo.builders import Row, filter_of, installed, ticks

N = NITROGEN_SHARE["NH4"]
CANISTER_STEPS = (
    "canister-feet",
    "canister-media",
    "canister-place",
    "canister-ends",
    "canister-hose",
    "canister-clamps",
    "canister-valves",
    "canister-prime",
    "canister-look-ends",
    "canister-look-clamps",
    "canister-look-tap",
    "canister-look-plug",
    "canister-power",
    "canister-leak-5",
    "canister-leak-60",
    "canister-leak-day",
)
SPONGE_STEPS = (
    "sponge-height",
    "sponge-rinse",
    "sponge-air-pump",
    "sponge-check-valve",
    "sponge-line",
    "sponge-place",
    "sponge-look-valve",
    "sponge-start",
    "sponge-spare",
)


def kiln_room() -> list[Row]:
    """Log of the main demo tank, whose cycle is under way."""
    return [
        (
            3,
            {
                "kind": "tank-plan",
                "tank": {
                    "length_cm": 90,
                    "width_cm": 40,
                    "height_cm": 45,
                    "glass_mm": 6,
                    "fill_below_rim_cm": 3,
                    "substrate_depth_cm": 4,
                    "stone_kg": 9,
                },
                "surroundings": {
                    "behind_cm": 6,
                    "stand_height_cm": 66,
                    "sockets": 1,
                    "room": "workshop",
                    "planted": True,
                },
            },
        ),
        (
            2,
            {
                "kind": "stock-plan",
                "animals": [
                    {"species_id": "harlequin-rasbora", "count": 12},
                    {"species_id": "zebra-danio", "count": 8},
                    {"species_id": "pearl-gourami", "count": 2},
                ],
            },
        ),
        (
            2,
            {
                "kind": "filter-plan",
                "priorities": {
                    "price": 2,
                    "quiet": 4,
                    "easy_clean": 3,
                    "clear_water": 3,
                    "hidden": 3,
                    "flood_safety": 1,
                    "power_cut": 1,
                    "room_in_tank": 2,
                },
            },
        ),
        (2, {"kind": "note", "text": "Bench stand is open at the back; the socket is low on the left."}),
    ]


def _second_sponge() -> list[Row]:
    """The second sponge fitted and timed, and the last weeks' tests and changes."""
    rows: list[Row] = []
    rows += [(5, {"kind": "step-done", "filter_key": "f2", "step_id": step}) for step in SPONGE_STEPS]
    for key, times, computed in (("f1", [15.6, 15.1, 15.4], 123), ("f2", [30.9, 30.2, 31.1], 59)):
        rows.append(
            (
                4,
                {
                    "kind": "flow-test",
                    "filter_key": key,
                    "container_l": 0.5,
                    "times_s": times,
                    "computed_lph": computed,
                },
            )
        )
    read = {"ammonia_ppm": 0, "nitrite_ppm": 0, "ph": 7.4, "kh_dkh": 5, "temperature_c": 23}
    for ago, nitrate in ((20, 10), (11, 10), (3, 5)):
        rows.append((ago, {"kind": "reading", "nitrate_ppm": nitrate, **read}))
    rows += [(days, {"kind": "water-change", "share": 0.25, "litres": 12.8, "treated": True}) for days in (17, 10, 3.2)]
    return rows


BINDERY_TANK = {
    "kind": "tank-plan",
    "tank": {
        "length_cm": 60,
        "width_cm": 30,
        "height_cm": 36,
        "glass_mm": 5,
        "fill_below_rim_cm": 3,
        "substrate_depth_cm": 3,
        "stone_kg": 2,
        "wood_kg": 0.6,
    },
    "surroundings": {"behind_cm": 4, "stand_height_cm": 74, "sockets": 2, "room": "workshop", "planted": True},
}


def bindery(now: datetime) -> list[Row]:
    """Eight months old, so its sponges have film to take from; a second sponge was fitted this week."""
    begun = 240.0
    wants = {"price": 4, "flood_safety": 4, "power_cut": 4, "hidden": 0}
    rows: list[Row] = [
        (begun + 9, BINDERY_TANK),
        (
            begun + 9,
            {
                "kind": "stock-plan",
                "animals": [{"species_id": "cherry-shrimp", "count": 15}, {"species_id": "ricefish", "count": 8}],
            },
        ),
        (begun + 8, {"kind": "filter-plan", "filters": installed("burreed-20"), "priorities": wants}),
        *ticks(begun + 7, *SPONGE_STEPS),
        (
            begun,
            {
                "kind": "cycle-plan",
                "started_at": (now - timedelta(days=begun)).isoformat(),
                "method": "seeded-filter",
                "temperature_c": 23,
                "start_kh_dkh": 6,
                "start_ph": 7.5,
            },
        ),
        (begun - 8, {"kind": "stocking", "species_id": "cherry-shrimp", "count": 15}),
        (begun - 40, {"kind": "stocking", "species_id": "ricefish", "count": 8}),
        (160, {"kind": "flow-test", "container_l": 0.5, "times_s": [14.6, 14.4, 14.7], "computed_lph": 123}),
        (22, {"kind": "media-work", "what": "rinsed", "share": 1, "text": "squeezed in a bucket of its own water"}),
        (30, {"kind": "seed", "name": "Spare sponge A", "text": "For the store shelf.", "media_share": 0.5}),
        (23, {"kind": "seed", "name": "Spare sponge B", "text": "For the store shelf.", "media_share": 0.5}),
        (
            6,
            {
                "kind": "filter-plan",
                "filters": [*installed("burreed-20"), {"key": "f2", "filter": filter_of("burreed-8")}],
                "priorities": wants,
            },
        ),
    ]
    return sorted([*rows, *_second_sponge()], key=lambda row: -row[0])


def _stalling(start: float) -> list[Row]:
    """Tests and doses of a cycle in soft water that stalls on day 16. start: days ago."""
    rows: list[Row] = []
    readings = (
        (0, 2, 0, 0, 2.4, 7.2),
        (3, 2, 0, None, 2.4, 7.2),
        (6, 1, 0.5, 0, 2.2, 7.2),
        (8, 0.5, 2, 2, 1.8, 7.1),
        (10, 0.5, 5, 5, 1.4, 7.0),
        (12, 0.5, 5, None, 1.1, 6.9),
        (14, 0.5, 5, 5, 0.8, 6.7),
        (16, 1, 5, 10, 0.6, 6.5),
    )
    for day, ammonia, nitrite, nitrate, kh, ph in readings:
        off = ["nitrite"] if nitrite >= 5 else []
        rows.append(
            (
                start - day,
                {
                    "kind": "reading",
                    "ammonia_ppm": ammonia,
                    "nitrite_ppm": nitrite,
                    "nitrate_ppm": nitrate,
                    "kh_dkh": kh,
                    "ph": ph,
                    "temperature_c": 26,
                    "off_scale": off,
                },
            )
        )
    for ago, raised, grams in (
        (0.0, 2.0, 1.55),
        (7, 1.5, 1.16),
        (9.3, 1.5, 1.16),
        (12.1, 1.5, 1.16),
        (14.1, 1.5, 1.16),
    ):
        rows.append((start - ago, {"kind": "dose", "raise_mg_n_l": raised * N, "amount": grams, "amount_unit": "g"}))
    return rows


def long_bench(now: datetime) -> list[Row]:
    """Log of the demo tank Long bench. now: aware time."""
    start = 16.1
    rows: list[Row] = [
        (
            24,
            {
                "kind": "tank-plan",
                "tank": {
                    "length_cm": 120,
                    "width_cm": 50,
                    "height_cm": 50,
                    "glass_mm": 10,
                    "fill_below_rim_cm": 3,
                    "substrate_depth_cm": 4,
                    "stone_kg": 14,
                },
                "surroundings": {"behind_cm": 9, "stand_height_cm": 72, "sockets": 3, "room": "workshop"},
            },
        ),
        (
            24,
            {
                "kind": "stock-plan",
                "animals": [{"species_id": "rosy-barb", "count": 12}, {"species_id": "weather-loach", "count": 4}],
            },
        ),
        (22, {"kind": "filter-plan", "filters": installed("lockgate-1500", plumbing={"hose_length_m": 3.4})}),
        *ticks(19, *CANISTER_STEPS),
        (18, {"kind": "flow-test", "container_l": 5, "times_s": [18.4, 17.9, 18.2], "computed_lph": 1010}),
        (
            start,
            {
                "kind": "cycle-plan",
                "started_at": (now - timedelta(days=start)).isoformat(),
                "method": "measured-ammonia",
                "target_ppm": 2,
                "temperature_c": 26,
                "start_kh_dkh": 2.4,
                "start_ph": 7.2,
                "tap": {"chlorine": "chlorine", "nitrate_mg_n_l": 0.4},
            },
        ),
        (start, {"kind": "kit-plan", "kit": {"kh_step_dkh": 0.2}}),
    ]
    return [*rows, *_stalling(start)]


def _years_of_flow() -> list[Row]:
    """Flow tests as the canister fades, changes, a power cut and a test."""
    rows: list[Row] = []
    for days_ago, times in (
        (204, [24.1, 23.8, 24.0]),
        (150, [26.0, 26.3, 25.8]),
        (90, [29.2, 29.0, 29.6]),
        (30, [33.5, 33.1, 33.9]),
    ):
        rows.append((days_ago, {"kind": "flow-test", "container_l": 5, "times_s": times, "computed_lph": 780}))
    rows += [
        *((days, {"kind": "water-change", "share": 0.25, "litres": 19}) for days in (26.1, 19.1, 12.1, 5.1)),
        (7.2, {"kind": "outage", "running": False}),
        (7.0, {"kind": "outage", "running": True}),
        (
            6,
            {
                "kind": "note",
                "text": "Power was off five hours. The axolotl was well; the canister ran again by itself.",
            },
        ),
        (
            2,
            {
                "kind": "reading",
                "ammonia_ppm": 0,
                "nitrite_ppm": 0,
                "nitrate_ppm": 20,
                "ph": 7.5,
                "kh_dkh": 6,
                "temperature_c": 18,
            },
        ),
    ]
    return rows


def courtyard(now: datetime) -> list[Row]:
    """Log of the demo tank Courtyard. now: aware time."""
    rows: list[Row] = [
        (
            215,
            {
                "kind": "tank-plan",
                "tank": {
                    "length_cm": 70,
                    "width_cm": 40,
                    "height_cm": 36,
                    "glass_mm": 6,
                    "fill_below_rim_cm": 5,
                    "substrate_depth_cm": 2,
                    "stone_kg": 6,
                },
                "surroundings": {"behind_cm": 12, "stand_height_cm": 70, "sockets": 2, "room": "workshop"},
            },
        ),
        (215, {"kind": "stock-plan", "animals": [{"species_id": "axolotl", "count": 1}]}),
        (214, {"kind": "filter-plan", "filters": installed("sweetflag-1200")}),
        *ticks(213, *CANISTER_STEPS),
        (
            212,
            {
                "kind": "cycle-plan",
                "started_at": (now - timedelta(days=212)).isoformat(),
                "method": "seeded-filter",
                "temperature_c": 18,
                "start_kh_dkh": 7,
                "start_ph": 7.6,
            },
        ),
        (205, {"kind": "stocking", "species_id": "axolotl", "count": 1}),
    ]
    return sorted([*rows, *_years_of_flow()], key=lambda row: -row[0])
