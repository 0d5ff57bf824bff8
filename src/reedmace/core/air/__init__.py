"""Air supply: one pump with its outlets, and the pressurised network of a fish room."""

from reedmace.core.air.air_supply import AirSupplyAnswer, AirSupplyQuestion, air_supply
from reedmace.core.air.airline_bucket import AirlineBucketAnswer, AirlineBucketQuestion, airline_bucket
from reedmace.core.air.plan import RoomAirQuestion
from reedmace.core.air.room_air import RoomAirAnswer, room_air

__all__ = [
    "AirSupplyAnswer",
    "AirSupplyQuestion",
    "AirlineBucketAnswer",
    "AirlineBucketQuestion",
    "RoomAirAnswer",
    "RoomAirQuestion",
    "air_supply",
    "airline_bucket",
    "room_air",
]
