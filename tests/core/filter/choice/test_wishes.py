"""Plain choices over the priorities."""

from reedmace.core.filter.choice.wishes import WISHES, wishes_of
from reedmace.core.filter.site.site import Priorities


def test_a_press_chooses_or_lets_go_and_changes_nothing_else() -> None:
    start = Priorities(quiet=5, price=2)
    wishes = wishes_of(start)
    assert [w.priority for w in wishes] == list(WISHES)
    for wish in wishes:
        assert wish.chosen == (getattr(start, wish.priority) >= 4)
        others = set(type(start).model_fields) - {wish.priority}
        assert all(getattr(wish.pressed, name) == getattr(start, name) for name in others)
        # Pressed once more it is as it was: chosen, or not.
        again = next(w for w in wishes_of(wish.pressed) if w.priority == wish.priority)
        assert again.chosen != wish.chosen
