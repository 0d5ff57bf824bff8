"""More situations: cold, warm, hard and brackish water, bare and planted tanks, rooms, wishes, large animals.

Common practice row by row, written down before the answers were looked at.
"""

from tests.support.situations import AIR, LARGE, LONG, METRE, NANO, NINETY, PUMPED, SIXTY, Situation, box

REEF = {"water": "salt", "beneath_cm": 75, "behind_cm": 14}
ROOM = {"kind": "fish-room", "tanks_here_count": 24}

WIDER = [
    # Cold, warm, hard, soft
    Situation("ricefish on a window sill", box(50, 30, 28), [("ricefish", 12)], first=AIR | PUMPED, temperature_c=20),
    Situation("paradise fish unheated", SIXTY, [("paradise-fish", 1)], first=AIR | PUMPED, temperature_c=20),
    Situation(
        "shubunkins in four hundred litres",
        LARGE,
        [("shubunkin", 4)],
        first=PUMPED,
        barred={"sponge", "internal", "under-gravel"},
        asked=(4, 9),
        temperature_c=18,
    ),
    Situation(
        "ranchu swim badly against a jet",
        box(100, 45, 42),
        [("ranchu", 3)],
        first=PUMPED,
        asked=(4.5, 10),
        temperature_c=20,
    ),
    Situation("ribbed newts in the cool", METRE, [("spanish-ribbed-newt", 4)], fits={"canister"}, temperature_c=18),
    Situation("altum-like warmth for a few rams", NINETY, [("ram", 6)], fits={"sponge", "hang-on"}, temperature_c=29),
    Situation(
        "chocolate gouramis in soft brown water", SIXTY, [("chocolate-gourami", 5)], fits={"sponge"}, asked=(1.5, 5)
    ),
    Situation("sulawesi shrimp", NANO, [("sulawesi-shrimp", 15)], first={"sponge"}, asked=(1, 3), temperature_c=28),
    Situation("mollies in hard water", NINETY, [("molly", 10)], first=PUMPED | {"sheet", "sponge"}, asked=(2.5, 7)),
    # Brackish
    Situation("bumblebee gobies", box(60, 30, 32, water="brackish"), [("bumblebee-goby", 8)], fits={"sponge"}),
    Situation("monos grown", LARGE | {"water": "brackish"}, [("mono", 4)], first=PUMPED | {"sump"}, asked=(2.5, 8)),
    Situation("knight gobies", NINETY | {"water": "brackish"}, [("knight-goby", 4)], fits={"hang-on", "canister"}),
    # Salt
    Situation(
        "a nano reef", box(40, 40, 38, water="salt", behind_cm=14), [("yellow-watchman-goby", 1)], first={"hang-on"}
    ),
    Situation(
        "damsels and a wrasse, drilled",
        box(120, 60, 55, drilled=True, **REEF),
        [("azure-damsel", 4), ("six-line-wrasse", 1)],
        first={"sump"},
        asked=(2.5, 6),
    ),
    Situation("a lionfish eats large meals", box(150, 60, 60, drilled=True, **REEF), [("lionfish", 1)], first={"sump"}),
    Situation(
        "a shrimp and hermit tank",
        box(60, 40, 40, **REEF),
        [("cleaner-shrimp", 2), ("hermit-crab", 5)],
        first={"hang-on"},
    ),
    Situation(
        "cardinals over a sump", box(90, 55, 50, drilled=True, **REEF), [("banggai-cardinalfish", 5)], fits={"sump"}
    ),
    # Bare, hospital, growing on
    Situation(
        "a quarantine tank of a corydoras group", box(45, 30, 30), [("panda-cory", 6)], fits={"sponge", "hang-on"}
    ),
    Situation("a breeding trio of killifish", box(30, 20, 20), [("clown-killifish", 3)], first=AIR, asked=(0.9, 4)),
    Situation("a grow-out of angelfish", box(100, 45, 45) | ROOM, [("angelfish", 40, 3)], first=AIR, fits={"sponge"}),
    Situation("mbuna fry in a row of tanks", box(60, 30, 32) | ROOM, [("zebra-mbuna", 30, 2)], first=AIR),
    Situation("a pair of apistos in a rack", box(60, 40, 30) | ROOM, [("cockatoo-apisto", 2)], first=AIR),
    Situation(
        "goldfish in a rack are not for sponges",
        box(120, 50, 45) | ROOM,
        [("common-goldfish", 3)],
        barred={"sponge"},
        temperature_c=18,
    ),
    # Planted
    Situation(
        "a jungle with a few pencilfish",
        METRE | {"planted": True, "film_here_m2": 2.0},
        [("beckfords-pencilfish", 12)],
        fits={"sponge"},
        asked=(0.9, 1.6),
    ),
    Situation(
        "a planted ninety with CO2 day and night",
        NINETY | {"planted": True, "co2": "day-and-night"},
        [("ember-tetra", 25)],
        first={"canister", "internal"},
    ),
    Situation(
        "a planted shrimp bowl",
        box(30, 30, 25, planted=True),
        [("blue-velvet-shrimp", 15)],
        first={"sponge"},
        asked=(0.9, 2.5),
    ),
    Situation(
        "a planted display of five hundred",
        box(180, 60, 55, planted=True),
        [("emperor-tetra", 40)],
        first={"canister", "sump"},
        asked=(0.5, 3),
        priorities={"hidden": 5, "clear_water": 4, "easy_clean": 1, "price": 1},
    ),
    # Diggers, nippers, the large and the messy
    Situation(
        "eartheaters over sand",
        LARGE,
        [("geophagus", 5)],
        first=PUMPED | {"sump"},
        barred={"under-gravel"},
        asked=(3, 8),
    ),
    Situation("one texas cichlid", LONG, [("texas-cichlid", 1)], first=PUMPED, asked=(3, 9)),
    Situation(
        "frontosas",
        box(180, 60, 60, beneath_cm=75),
        [("frontosa", 6)],
        first=PUMPED | {"sump"},
        barred={"sponge"},
        asked=(2.5, 8),
    ),
    Situation("a colony of brichardi", LONG, [("brichardi", 10)], first=PUMPED | {"sheet"}, asked=(3, 8)),
    Situation("kenyi in three hundred litres", LONG, [("kenyi-mbuna", 14)], first=PUMPED | {"sheet"}, asked=(4, 10)),
    Situation(
        "piranhas",
        box(150, 60, 55),
        [("red-bellied-piranha", 5)],
        first=PUMPED,
        barred={"sponge", "internal"},
        asked=(4, 10),
    ),
    Situation("a crayfish alone", SIXTY, [("electric-blue-crayfish", 1)], fits={"hang-on", "sponge"}, asked=(2, 7)),
    Situation(
        "bala sharks grown want six hundred",
        box(200, 60, 60),
        [("bala-shark", 5)],
        first=PUMPED | {"sump"},
        asked=(2, 7),
    ),
    Situation("a black ghost knifefish", LARGE, [("black-ghost-knifefish", 1)], first={"canister"}, asked=(2, 7)),
    Situation(
        "a rope fish among congos",
        LARGE,
        [("rope-fish", 2), ("congo-tetra", 15)],
        first=PUMPED | {"sheet", "sump"},
        asked=(2.5, 7),
    ),
    Situation(
        "a giant gourami in six hundred",
        box(200, 65, 60),
        [("giant-gourami", 1)],
        first=PUMPED | {"sump"},
        barred={"sponge"},
    ),
    Situation("tinfoil barbs need more than three hundred", LONG, [("tinfoil-barb", 8)], says=("Too many for",)),
    Situation("three common plecos in a hundred", METRE, [("common-pleco", 3)], says=("Too many for",)),
    Situation(
        "five sliders in two hundred and fifty", LONG | {"water_depth_cm": 40}, [("slider", 5)], says=("Too many for",)
    ),
    # Turtles and frogs
    Situation(
        "a map turtle",
        LONG | {"water_depth_cm": 38},
        [("map-turtle", 1)],
        first={"canister"},
        barred={"sponge", "internal"},
        asked=(3, 8),
    ),
    Situation(
        "a spotted turtle in shallow water",
        box(90, 45, 20),
        [("spotted-turtle", 1)],
        barred={"sponge", "sheet"},
        asked=(3, 12),
    ),
    # Rooms and wishes
    Situation(
        "four tanks in a living room", box(60, 30, 32, tanks_here_count=4), [("guppy", 8)], first=AIR | {"hang-on"}
    ),
    Situation(
        "ten tanks kept for ease",
        box(90, 40, 42, kind="fish-room", tanks_here_count=10),
        [("zebra-danio", 12)],
        first=AIR | {"hang-on"},
    ),
    Situation(
        "a bedroom nano must be silent",
        box(40, 25, 25, kind="bedroom"),
        [("ember-tetra", 8)],
        first={"canister", "hang-on", "internal", "sheet", "sponge"},
        priorities={"quiet": 5, "price": 0},
    ),
    Situation(
        "a workshop cares little for noise", NINETY | {"kind": "workshop"}, [("cherry-barb", 12)], first=PUMPED | AIR
    ),
    Situation(
        "a shelf with no back gap nor socket to spare",
        box(60, 30, 32, behind_cm=1, sockets=1),
        [("neon-tetra", 10)],
        barred={"hang-on"},
    ),
    Situation(
        "hidden above all in a living room",
        METRE,
        [("rummynose-tetra", 20)],
        first={"canister"},
        priorities={"hidden": 5, "price": 0, "easy_clean": 0, "flood_safety": 0},
    ),
    Situation(
        "two for safety where power fails",
        METRE | {"often_away": True},
        [("lemon-tetra", 15)],
        first=AIR | PUMPED,
        priorities={"redundant": 5, "power_cut": 5},
    ),
    # No cliffs at the ends
    Situation("a tank before its animals", NINETY, [], first=PUMPED | AIR, asked=(2, 6)),
    Situation("one neon in three hundred", LONG, [("neon-tetra", 1)], fits={"sponge", "hang-on", "canister"}),
]
