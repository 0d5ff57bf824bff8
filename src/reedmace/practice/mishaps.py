"""Mishaps a teacher may send to a class, by name: what the keeper sees, and what it does to the true tank."""

from typing import Annotated, Literal

from reedmace.core.contract import Part, number
from reedmace.practice.lesson import Mishap
from reedmace.practice.starts import power_cut
from reedmace.standins.practice_run import Act

MishapKind = Literal["power-cut", "heater-stuck", "chloramine", "friend-fish", "guest-feeds", "nitrite-blind"]
TITLES: dict[MishapKind, str] = {
    "power-cut": "A night without power",
    "heater-stuck": "The heater sticks on",
    "chloramine": "Chloramine in the tap",
    "friend-fish": "A friend brings fish",
    "guest-feeds": "A guest feeds for three",
    "nitrite-blind": "The nitrite test goes blind, unseen",
}
CUT_H, STUCK_H, STUCK_C, FED_H, FED_TIMES = 20.0, 20.0, 34.0, 48.0, 3.0
"""Hours of the cut, hours and °C of the stuck heater, hours and share of the ration of the guest (memory)."""
TAP_MG_N_L = 1.2
"""Ammonia that chloramine leaves in treated tap water, mg N/L (memory)."""
FRIENDS, FRIEND_SPECIES = 6, "zebra-danio"


class SentMishap(Part):
    """A mishap that was sent to a tank, at its own clock."""

    kind: MishapKind
    minute: Annotated[float, number("min", 0, 2_200_000)]
    feed_share: Annotated[float, number("share", 0, 1, "Of the ration, as it was set when this was sent")] = 1
    heater_c: Annotated[float, number("°C", 0, 40, "As it was set when this was sent")] = 25


def mishap_of(one: SentMishap) -> Mishap:
    """What a mishap does; heater and food go back to what they were set to. one: kind, minute and those settings."""
    at = one.minute
    match one.kind:
        case "power-cut":
            return Mishap(at, f"The power is off, and stays off for {CUT_H:.0f} hours.", power_cut(at, CUT_H))
        case "heater-stuck":
            acts = (Act(at, "heater", STUCK_C), Act(at + STUCK_H * 60, "heater", one.heater_c))
            return Mishap(at, "The heater's light does not go out any more: it sticks on.", acts)
        case "chloramine":
            seen = "The waterworks write: from today the tap is treated with chloramine."
            return Mishap(at, seen, (Act(at, "tap-ammonia", TAP_MG_N_L),))
        case "friend-fish":
            seen = f"A friend has put {FRIENDS} zebra danios in while you were out. Nobody wrote them down."
            return Mishap(at, seen, (Act(at, "animals", FRIENDS, FRIEND_SPECIES),))
        case "nitrite-blind":
            return Mishap(at, "", (), "The nitrite test went blind: it read none, whatever was in the water.")
        case "guest-feeds":
            acts = (Act(at, "feed", FED_TIMES), Act(at + FED_H * 60, "feed", one.feed_share))
            return Mishap(at, "A guest means well and feeds for three, two days long.", acts)
