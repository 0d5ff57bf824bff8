"""Invented boxes, on tanks and packed, that tests share."""

from typing import Any

from reedmace.demo.sample_boxes import SAMPLE_BOXES

BY_ID = {f.id: f for f in SAMPLE_BOXES}


STACKED = BY_ID["sweetflag-800"].model_copy(update={"media_l": 4.4, "face_cm2": 260})


PACKED: dict[str, Any] = {
    "filter": STACKED.model_dump(),
    "site": {"net_l": 100, "water_depth_cm": 40, "length_cm": 80, "width_cm": 35},
    "feed_g_day": 2,
}
