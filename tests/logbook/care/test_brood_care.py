"""What each brood of a tank needs."""

from datetime import timedelta

from reedmace.logbook.care.brood_care import BroodCare, brood_care
from tests.support.fitting import BY_ID, NOW, state_of

SPONGE = (300, {"kind": "filter-plan", "filters": [{"key": "f1", "filter": BY_ID["burreed-20"].model_dump()}]})


def step(what: str, days: float, species: str = "angelfish", **more: object):
    return (days, {"kind": "brood", "brood": "brood-1", "species_id": species, "what": what, **more})


def one(*rows) -> BroodCare:
    (found,) = brood_care(state_of(SPONGE, *rows), NOW)
    return found


def test_from_pair_to_count_each_step_is_next_with_its_day() -> None:
    assert (one(step("pair", 9)).next_step, one(step("pair", 9)).answer) == ("spawned", None)
    eggs = one(step("pair", 9), step("spawned", 1))
    assert eggs.next_step == "hatched"
    assert eggs.next_at is not None
    assert NOW < eggs.next_at < NOW + timedelta(days=5)
    assert eggs.answer is not None
    assert eggs.answer.swims_in_days is not None
    larvae = one(step("pair", 9), step("spawned", 3), step("hatched", 1))
    assert larvae.next_step == "free-swimming"
    swim = one(step("pair", 9), step("spawned", 9), step("free-swimming", 2))
    assert (swim.next_step, swim.answer is not None and swim.answer.assumed) == ("counted", True)


def test_livebearers_are_born_swimming() -> None:
    assert one(step("pair", 9, "guppy")).next_step == "free-swimming"


def test_lost_sold_and_moved_are_counted_and_what_is_left_lives_on() -> None:
    swim = (step("pair", 20), step("free-swimming", 10), step("counted", 8, count=60))
    found = one(*swim, step("lost", 5, count=4), step("sold", 3, count=20))
    assert (found.counted, found.lost_count, found.sold_count) == (36, 4, 20)


def test_too_many_for_the_tank_have_a_day_and_few_have_none() -> None:
    swim = (step("pair", 20), step("free-swimming", 10))
    many, few = (one(*swim, step("counted", 8, count=n)) for n in (900, 4))
    assert many.small_at is not None
    assert few.small_at is None


def test_young_nobody_described_are_said_so() -> None:
    found = one(step("pair", 9, "own-cichlid"), step("free-swimming", 2, "own-cichlid"))
    assert found.answer is None
    assert found.verdict.startswith("Nobody has described own-cichlid")
