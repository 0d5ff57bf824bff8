"""Ways to cycle a tank, ranked for the keeper's resources."""

from reedmace.core.computations import compute


def methods(**more):
    answer = compute("cycle-methods", more)
    return answer, {m.method: m for m in answer.methods}


def test_what_you_have_decides_the_method() -> None:
    def best(**more) -> str:
        return methods(**more)[0].methods[0].method

    assert best() == "measured-ammonia"
    assert best(resources={"mature_media": "own"}) == "seeded-filter"
    assert best(resources={"mature_media": "own", "old_filter_fits": True}) == "side-by-side"
    assert best(resources={"mature_media": "trusted"}, salinity_g_kg=35) == "seeded-filter"
    assert best(resources={"plants": "many", "ammonia": False}) == "planted"
    assert best(resources={"ammonia": False}) == "fish-food"
    assert best(animals_in=True) == "animals-in"


def test_media_of_unknown_health_are_left_out_and_said_so() -> None:
    answer, by = methods(resources={"mature_media": "unsure"})
    assert by["seeded-filter"].fits == "not-here"
    assert "health" in by["seeded-filter"].why
    assert "disease" in answer.verdict


def test_helpers_are_combined_and_make_it_shorter() -> None:
    _, bare = methods(ph=7.6)
    _, both = methods(ph=7.6, resources={"bottle": "in-date", "plants": "some"})
    assert both["measured-ammonia"].helpers == ["bottled-culture", "plants"]
    # A bottle may be worth nothing: the best case comes much nearer, the worst hardly.
    assert both["measured-ammonia"].days_low < bare["measured-ammonia"].days_low - 4
    assert both["measured-ammonia"].days_high <= bare["measured-ammonia"].days_high
    assert "bottled culture" in both["measured-ammonia"].title


def test_every_disagreement_shows_both_sides_and_what_is_followed() -> None:
    answer, _ = methods()
    assert len(answer.disputes) >= 6
    for d in answer.disputes:
        assert len({d.one_side, d.other_side, d.followed}) == 3


def test_where_money_is_short_a_bottle_is_left_out() -> None:
    _, short = methods(resources={"bottle": "in-date", "budget": "little"})
    assert short["measured-ammonia"].helpers == []
    assert short["measured-ammonia"].costs == "little"
    _, spend = methods(resources={"bottle": "in-date"})
    assert spend["measured-ammonia"].costs == "some"
