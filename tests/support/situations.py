"""Situations practitioners know well, and what they find in each: common practice, with the tolerance of the trade.

A row is a tank with its animals and what is held of the answer. "first" lists the kinds that may come first, alone or
as a pair; "fits" and "barred" list kinds of which at least one, or none, is let in; "asked" bounds the flow asked in
tank volumes an hour; "says" lists words of the verdict; "level" names a margin of one filter of the catalogue.
"""

from dataclasses import dataclass, field
from typing import Any


@dataclass(frozen=True)
class Situation:
    """One row: the sentence a practitioner would say, the tank, and what is held."""

    name: str
    room: dict[str, Any]
    animals: list[tuple[Any, ...]]
    first: set[str] | None = None
    fits: set[str] = field(default_factory=set)
    barred: set[str] = field(default_factory=set)
    asked: tuple[float, float] | None = None
    says: tuple[str, ...] = ()
    level: tuple[tuple[str, str, tuple[str, ...]], ...] = ()
    priorities: dict[str, int] | None = None
    temperature_c: float = 25
    caveat: tuple[str, str] | None = None
    """(filter, words) of one of its caveats."""


def box(length: float, width: float, depth: float, **more: Any) -> dict[str, Any]:
    """A tank by its inside sizes in cm: 8 % of its litres taken by what lies in it, its wetted glass a home of film."""
    return {
        "film_here_m2": (2 * (length + width) * depth + length * width) / 1e4,
        "net_l": round(length * width * depth / 1000 * 0.92, 1),
        "length_cm": length,
        "width_cm": width,
        "water_depth_cm": depth,
        **more,
    }


NANO, SIXTY, NINETY = box(30, 30, 28), box(60, 30, 32), box(90, 40, 42)
METRE, LONG, LARGE = box(100, 45, 45), box(120, 50, 46), box(150, 60, 55)
AIR, PUMPED = {"sponge", "sheet", "box"}, {"hang-on", "canister"}

SITUATIONS = [
    # Small, gentle, many
    Situation("shrimp in a nano go on a sponge", NANO, [("cherry-shrimp", 15)], first={"sponge"}, asked=(1, 3)),
    Situation("bee shrimp in a nano", NANO, [("crystal-shrimp", 12)], first={"sponge"}, temperature_c=22),
    Situation(
        "shrimp under a hang-on want a guard", SIXTY, [("cherry-shrimp", 20)], caveat=("millrace-30", "guard sponge")
    ),
    Situation("a betta alone", NANO, [("betta", 1)], first={"sponge", "box"}, temperature_c=26),
    Situation(
        "fry grown on in forty litres",
        box(45, 30, 30, kind="fish-room", tanks_here_count=12),
        [("guppy", 12, 1.5)],
        first=AIR,
    ),
    Situation("a breeding pair of gouramis", SIXTY, [("honey-gourami", 2)], fits={"sponge", "sheet"}, asked=(1, 4)),
    Situation(
        "celestial danios",
        box(45, 30, 30),
        [("celestial-pearl-danio", 10)],
        first={"sponge", "box", "hang-on", "sheet"},
    ),
    Situation(
        "a light seventy-five litres with young catfish on one sponge",
        box(60, 38, 34),
        [("pygmy-cory", 100, 1.5)],
        fits={"sponge"},
    ),
    # Rooms
    Situation(
        "twelve tanks run on air",
        box(45, 30, 30, kind="fish-room", tanks_here_count=12),
        [("guppy", 8)],
        first=AIR,
    ),
    Situation(
        "forty tanks run on air",
        box(60, 30, 32, kind="fish-room", tanks_here_count=40),
        [("platy", 10)],
        first={"sponge", "sheet", "box"},
    ),
    Situation(
        "no wall gap bars a hang-on",
        box(90, 40, 42, behind_cm=2),
        [("harlequin-rasbora", 12)],
        barred={"hang-on"},
        fits={"canister", "sponge"},
    ),
    Situation(
        "no room beneath bars a canister",
        box(90, 40, 42, beneath_cm=5),
        [("harlequin-rasbora", 12)],
        barred={"canister", "sump"},
    ),
    Situation("an undrilled tank bars a sump", LARGE | {"beneath_cm": 75}, [("congo-tetra", 20)], barred={"sump"}),
    Situation(
        "an overflow box lets one in",
        LARGE | {"beneath_cm": 75, "overflow_box": True},
        [("congo-tetra", 20)],
        fits={"sump"},
    ),
    Situation(
        "no socket bars all", box(60, 30, 32, sockets=0), [("guppy", 5)], barred={"sponge", "hang-on", "canister"}
    ),
    Situation(
        "an owner away wants what starts by itself",
        box(90, 40, 42, often_away=True),
        [("zebra-danio", 10)],
        first=AIR | PUMPED,
    ),
    Situation(
        "a bedroom is kept quiet",
        box(90, 40, 42, kind="bedroom"),
        [("cardinal-tetra", 20)],
        first={"canister", "hang-on", "sheet"},
    ),
    Situation(
        "shallow water bars an uplift", box(60, 40, 9), [("fire-belly-newt", 2)], barred={"sheet"}, temperature_c=18
    ),
    # Communities
    Situation(
        "a community of ninety litres",
        box(80, 35, 36),
        [("neon-tetra", 12), ("bronze-cory", 6)],
        first=PUMPED | {"sponge", "sheet"},
        asked=(2.5, 5),
    ),
    Situation(
        "a community of a hundred and fifty",
        NINETY,
        [("harlequin-rasbora", 12), ("zebra-danio", 8), ("pearl-gourami", 2)],
        first=PUMPED | {"sheet"},
        asked=(2.5, 5),
    ),
    Situation(
        "a display of two hundred and forty",
        LONG,
        [("rummynose-tetra", 30), ("angelfish", 4), ("sterbai-cory", 10)],
        first={"canister", "hang-on", "sump", "sheet"},
        asked=(3, 6),
    ),
    Situation("livebearers in hard water", SIXTY, [("platy", 8), ("guppy", 6)], fits={"sponge", "hang-on"}),
    Situation(
        "barbs and weather loaches",
        LONG,
        [("rosy-barb", 12), ("weather-loach", 4)],
        fits={"canister"},
        asked=(3, 6.5),
        temperature_c=22,
    ),
    Situation("rainbowfish in a long tank", LONG, [("boesemani-rainbowfish", 12)], fits={"canister"}),
    Situation("one small catfish changes nothing", NINETY, [("neon-tetra", 20), ("clown-pleco", 1)], asked=(2.3, 5)),
    Situation("one bristlenose changes little", NINETY, [("neon-tetra", 20), ("bristlenose", 1)], asked=(2.5, 5.5)),
    # Planted
    Situation(
        "lightly stocked and planted: a sponge is plenty",
        METRE | {"planted": True, "film_here_m2": 2.0},
        [("neon-tetra", 15), ("otocinclus", 6)],
        fits={"sponge"},
        asked=(0.9, 1.5),
        says=("hardly needs a filter",),
    ),
    Situation(
        "planted and full: a filter all the same",
        METRE | {"planted": True, "film_here_m2": 2.0},
        [("rosy-barb", 30)],
        asked=(3, 7),
    ),
    Situation(
        "a planted nano",
        NANO | {"planted": True, "film_here_m2": 0.4},
        [("chili-rasbora", 8)],
        asked=(0.9, 1.5),
        fits={"sponge"},
    ),
    # Goldfish
    Situation(
        "two fancy goldfish",
        box(100, 40, 42),
        [("fancy-goldfish", 2)],
        first=PUMPED,
        barred={"under-gravel", "internal"},
        asked=(5, 10),
        temperature_c=20,
    ),
    Situation(
        "common goldfish in a long tank", LONG, [("common-goldfish", 3)], first=PUMPED, asked=(5, 9), temperature_c=18
    ),
    Situation(
        "goldfish never on a sponge alone",
        box(100, 40, 42),
        [("fancy-goldfish", 3)],
        barred={"sponge"},
        temperature_c=20,
    ),
    Situation(
        "a young goldfish is judged today and grown",
        box(80, 35, 38),
        [("fancy-goldfish", 2, 5)],
        asked=(4, 10),
        temperature_c=20,
    ),
    Situation(
        "ignore the label for goldfish", box(100, 40, 42), [("fancy-goldfish", 3)], first=PUMPED, temperature_c=20
    ),
    # Turtles
    Situation(
        "a slider",
        LONG | {"water_depth_cm": 40},
        [("slider", 1)],
        first={"canister"},
        barred={"sponge", "sheet", "internal", "under-gravel", "box"},
        asked=(4, 7),
    ),
    Situation("a musk turtle", METRE, [("musk-turtle", 1)], first={"canister", "hang-on"}, barred={"sponge"}),
    Situation("a cooter in a large tank", LARGE, [("cooter", 1)], first={"canister"}),
    # Cichlids and the large
    Situation("an oscar", LONG, [("oscar", 1)], first=PUMPED | {"sump"}, asked=(4, 9)),
    Situation("two oscars want two filters or one very large", LARGE, [("oscar", 2)], first=PUMPED, asked=(5, 9)),
    Situation(
        "mbuna: filters doubled",
        METRE,
        [("yellow-lab", 10), ("zebra-mbuna", 8)],
        first=PUMPED | {"sheet"},
        asked=(5, 10),
    ),
    Situation(
        "sixty half-grown cichlids on a large sponge",
        box(95, 45, 44, kind="fish-room"),
        [("yellow-lab", 55, 8)],
        fits={"sponge"},
        level=(("watermint-120", "biology", ("enough", "ample")), ("watermint-120", "movement", ("short",))),
    ),
    Situation(
        "shell dwellers are small cichlids", box(60, 40, 34), [("shell-dweller", 8)], asked=(2.5, 9), fits={"sponge"}
    ),
    Situation("discus in warm soft water", LARGE, [("discus", 6)], first=PUMPED | {"sump", "sheet"}, temperature_c=29),
    Situation("common pleco outgrows and messes", LONG, [("common-pleco", 1)], asked=(3, 9)),
    Situation("a bichir", LONG, [("bichir", 1)], fits={"canister"}),
    # Amphibians and slow
    Situation(
        "an axolotl in cool still water",
        box(75, 40, 30),
        [("axolotl", 1)],
        fits={"sponge", "canister"},
        temperature_c=16,
    ),
    Situation(
        "an axolotl under a strong canister",
        box(75, 40, 30),
        [("axolotl", 1)],
        level=(("sweetflag-1200", "movement", ("too-much", "ample", "enough")),),
        temperature_c=16,
    ),
    Situation("dwarf frogs", box(45, 30, 28), [("african-dwarf-frog", 4)], first={"sponge", "box", "hang-on", "sheet"}),
    Situation(
        "long fins in a strong jet", SIXTY, [("betta", 1)], level=(("sweetflag-800", "movement", ("too-much",)),)
    ),
    # Current lovers
    Situation(
        "hillstream loaches want flow",
        box(90, 40, 30),
        [("hillstream-loach", 6)],
        first=PUMPED | {"internal", "sheet"},
        temperature_c=22,
    ),
    Situation(
        "danios stand a strong stream",
        NINETY,
        [("giant-danio", 10)],
        level=(("sweetflag-1200", "movement", ("ample", "enough")),),
    ),
    # Large water
    Situation(
        "over 380 litres drilled: the sump",
        LARGE | {"drilled": True, "beneath_cm": 75},
        [("congo-tetra", 20), ("angelfish", 4)],
        fits={"sump"},
        first={"sump", "canister"},
    ),
    Situation(
        "over 380 litres, not drilled", LARGE, [("congo-tetra", 20), ("angelfish", 4)], first={"canister", "hang-on"}
    ),
    # Salt
    Situation(
        "a drilled marine tank",
        box(120, 60, 55, water="salt", drilled=True, beneath_cm=75),
        [("ocellaris-clownfish", 2), ("yellow-tang", 1)],
        first={"sump"},
    ),
    Situation(
        "a drilled marine tank before its animals",
        box(120, 60, 55, water="salt", drilled=True, beneath_cm=75),
        [],
        first={"sump"},
    ),
    Situation(
        "a small marine tank, not drilled",
        box(60, 40, 40, water="salt", behind_cm=14),
        [("ocellaris-clownfish", 2)],
        first={"hang-on"},
        caveat=("sweetflag-500", "nitrate"),
    ),
    Situation(
        "a marine tank with an overflow box",
        box(90, 45, 45, water="salt", overflow_box=True, beneath_cm=75),
        [("ocellaris-clownfish", 2), ("royal-gramma", 1)],
        first={"sump", "hang-on"},
        fits={"sump"},
    ),
    Situation(
        "a tang asks no more of the filter in salt water",
        box(120, 60, 55, water="salt", drilled=True, beneath_cm=75),
        [("yellow-tang", 2)],
        asked=(2.5, 5),
    ),
    # Priorities
    Situation(
        "chemical media wanted: no sponge first",
        SIXTY,
        [("neon-tetra", 10)],
        first=PUMPED | {"internal"},
        priorities={"chemical": 5, "price": 0, "power_cut": 0, "easy_clean": 0},
    ),
    Situation(
        "cheapest of all: a sponge, or the smallest hang-on",
        SIXTY,
        [("neon-tetra", 10)],
        first={"sponge", "box", "hang-on"},
        priorities={"price": 5, "quiet": 0, "hidden": 0, "clear_water": 0},
    ),
    Situation(
        "power cuts every week: air or what restarts",
        SIXTY,
        [("neon-tetra", 10)],
        first=AIR,
        priorities={"power_cut": 5, "quiet": 0, "hidden": 0, "clear_water": 0},
    ),
    Situation(
        "clear water for a display",
        LONG,
        [("rummynose-tetra", 30)],
        first={"canister", "hang-on", "sump"},
        priorities={"clear_water": 5, "hidden": 5, "price": 0, "easy_clean": 0},
    ),
    Situation(
        "no flood: nothing under the tank",
        NINETY,
        [("neon-tetra", 20)],
        first=AIR | {"hang-on", "internal", "under-gravel"},
        priorities={"flood_safety": 5, "price": 5, "hidden": 0, "clear_water": 0},
    ),
    # Crowd
    Situation(
        "a fish room's hospital tank",
        box(40, 25, 25, kind="fish-room", tanks_here_count=6),
        [("bronze-cory", 1)],
        first={"sponge", "box"},
    ),
    Situation(
        "a shop's display",
        LONG | {"kind": "shop"},
        [("tiger-barb", 30)],
        first={"hang-on", "canister", "sheet"},
        priorities={"clear_water": 5, "hidden": 3},
    ),
    # Safe for young, many tanks, carbon, crowds, salt, large water
    Situation(
        "shrimp and guppies in fifty-five litres", box(60, 30, 33), [("cherry-shrimp", 15), ("guppy", 6)], first=AIR
    ),
    Situation(
        "endlers and shrimp in a bedroom",
        box(60, 30, 33, kind="bedroom"),
        [("endlers-livebearer", 10), ("cherry-shrimp", 10)],
        first=AIR,
        asked=(1.3, 3),
    ),
    Situation("shrimp while the owner is away", SIXTY | {"often_away": True}, [("cherry-shrimp", 20)], first=AIR),
    Situation(
        "pea puffers among plants", box(45, 30, 30, planted=True), [("pea-puffer", 4)], first=AIR, asked=(0.9, 2.5)
    ),
    Situation(
        "fry of cichlids grown on",
        box(80, 35, 38, kind="fish-room", tanks_here_count=10),
        [("yellow-lab", 60, 2)],
        first=AIR,
    ),
    Situation(
        "sixty tanks of killifish",
        box(40, 25, 25, kind="fish-room", tanks_here_count=60),
        [("killifish-gardneri", 4)],
        first=AIR,
    ),
    Situation(
        "sixty tanks of dwarf cichlids",
        box(80, 40, 40, kind="fish-room", tanks_here_count=60),
        [("kribensis", 4)],
        first=AIR,
    ),
    Situation(
        "a planted tank with CO2",
        box(90, 45, 45, planted=True, co2="by-day"),
        [("cardinal-tetra", 30)],
        first={"canister", "internal"},
        asked=(1, 3),
    ),
    Situation(
        "two hundred litres planted with CO2",
        LONG | {"planted": True, "co2": "by-day"},
        [("rummynose-tetra", 25), ("otocinclus", 6)],
        first={"canister", "internal"},
        asked=(1, 3),
    ),
    Situation(
        "a hang-on over CO2",
        box(60, 30, 32, planted=True, co2="by-day"),
        [("neon-tetra", 8)],
        caveat=("osier-40", "drives the CO2 out"),
    ),
    Situation(
        "six oscars in a hundred and fifty",
        box(100, 40, 40),
        [("oscar", 6)],
        says=("Too many for", "Not one oscar fits it"),
    ),
    Situation("ten discus in two hundred", box(110, 45, 45), [("discus", 10)], says=("Too many for", "× discus")),
    Situation("twelve goldfish in sixty", SIXTY, [("fancy-goldfish", 12)], says=("Too many for",)),
    Situation("ten goldfish in a pond of three thousand", box(300, 150, 72), [("common-goldfish", 10)], asked=(0.5, 2)),
    Situation("six goldfish in a pond of fifteen hundred", box(200, 110, 72), [("common-goldfish", 6)], asked=(0.5, 2)),
    Situation(
        "large cichlids in twelve hundred litres",
        box(250, 75, 68, beneath_cm=80),
        [("jack-dempsey", 6), ("severum", 6)],
        first={"canister", "sump"},
        asked=(0.5, 2.5),
    ),
    Situation(
        "a drilled reef of two hundred",
        box(90, 55, 45, water="salt", drilled=True, beneath_cm=75),
        [("ocellaris-clownfish", 2), ("royal-gramma", 1)],
        first={"sump"},
    ),
    Situation(
        "a reef of a hundred, not drilled",
        box(60, 45, 42, water="salt", behind_cm=14),
        [("ocellaris-clownfish", 2)],
        first={"hang-on"},
    ),
    Situation(
        "a tang under an overflow box",
        box(120, 60, 55, water="salt", overflow_box=True, beneath_cm=75),
        [("yellow-tang", 1)],
        first={"sump"},
    ),
    Situation(
        "a puffer in brackish water", box(80, 40, 40, water="brackish"), [("figure-eight-puffer", 1)], first=PUMPED
    ),
    Situation(
        "hillstream loaches in the cool",
        box(100, 40, 35),
        [("hillstream-loach", 8)],
        first=PUMPED | {"internal"},
        temperature_c=21,
    ),
    Situation("white clouds without a heater", SIXTY, [("white-cloud", 10)], first=PUMPED | AIR, temperature_c=20),
    Situation(
        "a bare quarantine tank", box(50, 30, 30), [("neon-tetra", 10)], fits={"sponge", "hang-on"}, asked=(1.5, 4)
    ),
    Situation("bare-bottom discus", LARGE, [("discus", 5)], fits={"canister"}, asked=(3, 6), temperature_c=29),
    Situation(
        "young discus grown on", box(110, 45, 45), [("discus", 10, 5)], fits={"sponge", "hang-on"}, temperature_c=29
    ),
    Situation("young oscars are bought for grown", LONG, [("oscar", 2, 6)], first=PUMPED, barred={"sponge"}),
    Situation("angelfish", box(100, 40, 50), [("angelfish", 5)], first=PUMPED | {"sheet"}, asked=(3, 6)),
    Situation(
        "gouramis and kuhli loaches",
        NINETY,
        [("pearl-gourami", 4), ("kuhli-loach", 8)],
        first=PUMPED | {"sheet"},
        asked=(2.5, 5),
    ),
    Situation(
        "a colony of corydoras", box(80, 35, 36), [("bronze-cory", 15)], first=PUMPED | {"sheet"}, asked=(2.5, 5)
    ),
    Situation("a breeding pair of kribensis", SIXTY, [("kribensis", 2)], fits={"sponge", "hang-on"}, asked=(2, 5)),
    Situation(
        "rams among plants",
        box(80, 35, 36, planted=True),
        [("ram", 4), ("ember-tetra", 15)],
        fits={"sponge", "canister"},
        asked=(1, 3),
    ),
    Situation(
        "a large pleco with angelfish", LARGE, [("common-pleco", 1), ("angelfish", 4)], barred={"sponge"}, asked=(3, 8)
    ),
    Situation("a musk turtle alone", METRE, [("musk-turtle", 1)], barred={"sponge", "internal"}, asked=(2.5, 7)),
    Situation("two axolotls", box(100, 45, 35), [("axolotl", 2)], fits={"canister", "sponge"}, temperature_c=17),
    Situation("newts in shallow water", box(60, 40, 20), [("fire-belly-newt", 4)], fits={"sponge"}, temperature_c=18),
    Situation("bettas among plants", NINETY | {"planted": True}, [("betta", 5)], first=AIR, asked=(0.9, 2)),
    Situation("a shop's tank of barbs", LONG | {"kind": "shop"}, [("tiger-barb", 40)], first=PUMPED, asked=(3, 6)),
    Situation(
        "goldfish in a workshop",
        box(120, 45, 45, kind="workshop"),
        [("common-goldfish", 2)],
        first=PUMPED,
        barred={"sponge"},
        asked=(4.5, 9),
        temperature_c=18,
    ),
    Situation(
        "neither gap nor stand",
        box(60, 30, 32, beneath_cm=2, behind_cm=2),
        [("platy", 6)],
        barred={"hang-on", "canister"},
        first=AIR,
    ),
    Situation("one socket is enough for one", box(90, 40, 42, sockets=1), [("zebra-danio", 10)], first=PUMPED),
    Situation(
        "fan shrimp and danios", NINETY, [("bamboo-shrimp", 3), ("zebra-danio", 10)], fits={"hang-on"}, asked=(2, 5)
    ),
]
