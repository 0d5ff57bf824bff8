"""A room's round: a third of its sponges a week at most, the soonest due first, never two of one tank."""

import math

from hypothesis import given
from hypothesis import strategies as st

from reedmace.core.upkeep import RoundPiece, SpongeRoundQuestion, sponge_round

PIECES = st.lists(st.tuples(st.integers(0, 8), st.floats(-60, 60)), max_size=40)


def asked(rows: list[tuple[int, float]]) -> SpongeRoundQuestion:
    return SpongeRoundQuestion(
        pieces=[RoundPiece(key=f"p{i}", tank=f"Tank {tank}", next_day=day) for i, (tank, day) in enumerate(rows)]
    )


@given(PIECES)
def test_at_most_a_third_only_what_is_due_and_each_tank_once(rows: list[tuple[int, float]]) -> None:
    answer = sponge_round(asked(rows))
    days = {f"p{i}": day for i, (_, day) in enumerate(rows)}
    tanks = {f"p{i}": tank for i, (tank, _) in enumerate(rows)}
    assert len(answer.keys) <= math.ceil(len(rows) / 3)
    assert all(days[key] <= 7 for key in answer.keys)
    assert len({tanks[key] for key in answer.keys}) == len(answer.keys)
    assert len(answer.keys) + answer.later_count == sum(day <= 7 for _, day in rows)
    # Nothing left for later was due before what is taken, but for a second one of the same tank.
    left = [key for key in days if days[key] <= 7 and key not in answer.keys]
    taken = {tanks[key] for key in answer.keys}
    assert all(days[key] >= max(days[k] for k in answer.keys) for key in left if tanks[key] not in taken)


def test_sixty_sponges_all_due_are_a_third_and_the_rest_follows() -> None:
    answer = sponge_round(asked([(i, -1.0) for i in range(60)]))
    assert (len(answer.keys), answer.later_count) == (20, 40)
    assert answer.verdict.startswith("This week's round: squeeze a third of the rack, Tank 0, Tank 1, Tank 10, Tank 11")
    assert "The other 40" in answer.verdict


def test_what_is_no_third_is_counted() -> None:
    assert "squeeze 2 of 4, " in sponge_round(asked([(i, -1.0) for i in range(4)])).verdict


def test_nothing_due_is_said() -> None:
    assert sponge_round(asked([(i, 20.0) for i in range(9)])).verdict == "No sponge of 9 is to be squeezed this week."
