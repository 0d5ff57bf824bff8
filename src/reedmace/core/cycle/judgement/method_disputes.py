"""Where practitioners disagree about cycling, and which way is followed."""

from reedmace.core.contract import (
    Part,
)


class Dispute(Part):
    """A point keepers disagree on: both sides, and which is followed here and why."""

    about: str
    one_side: str
    other_side: str
    followed: str


DISPUTES = (
    Dispute(
        about="The best way",
        one_side="Dosed ammonia: measurable, no animal suffers, the proof is in the test.",
        other_side="Seeded media, or plants: faster or calmer, and nobody measures bottles.",
        followed="What you have decides: seeded media first, dosed ammonia next; each is proved by tests all the same.",
    ),
    Dispute(
        about="Bottled culture",
        one_side="It helps and saves a week or two.",
        other_side="Its window is narrow and many bottles are dead.",
        followed=(
            "A helper only: counted inside 25 to 30 °C (77 to 86 °F), pH 7.3 to 8.0, some KH, in date; hardly at all"
            " outside."
        ),
    ),
    Dispute(
        about="How long a spare sponge seeds",
        one_side="Two weeks have done.",
        other_side="A month, to be sure.",
        followed="It counts from two weeks and is called ready at four; the film on it is reckoned by days.",
    ),
    Dispute(
        about="Squeezing dirty foam into the new filter",
        one_side="It carries film and dirt to feed it.",
        other_side="Little of it settles where it is wanted.",
        followed="Harmless, and counted as a twentieth of the media at most: move media whole where you can.",
    ),
    Dispute(
        about="What to test at first",
        one_side="Ammonia alone until it falls.",
        other_side="All three from day one.",
        followed="All three, and KH: without a baseline neither nitrate nor a stall can be read later.",
    ),
    Dispute(
        about="The bar for ready",
        one_side="2 ppm gone in a day.",
        other_side="That is far more than a normal tank makes.",
        followed="1.2 times what your animals make in a day, at least 0.5 mg/L of nitrogen, 0.64 ppm of ammonia.",
    ),
)
