"""Results are kept with the object they were worked out of."""

from reedmace.core.memo import Memoizing, memoize


class Basin(Memoizing):
    """Something with a size."""

    litres: float


calls: list[tuple[float, object]] = []


@memoize
def doubled(basin: Basin, extra: object = 0) -> float:
    calls.append((basin.litres, extra))
    return 2 * basin.litres


def test_each_object_and_argument_is_worked_out_once() -> None:
    calls.clear()
    one, twin = Basin(litres=3), Basin(litres=3)
    assert [doubled(one), doubled(one), doubled(one, 1), doubled(twin)] == [6, 6, 6, 6]
    assert calls == [(3, 0), (3, 1), (3, 0)]


def test_what_is_kept_is_no_part_of_the_value_and_no_copy_has_it() -> None:
    calls.clear()
    one = Basin(litres=5)
    doubled(one)
    assert one == Basin(litres=5)
    assert "_memo" not in one.model_dump()
    assert doubled(one.model_copy(update={"litres": 7})) == 14
    assert calls == [(5, 0), (7, 0)]


def test_arguments_that_can_change_are_never_a_key() -> None:
    calls.clear()
    one = Basin(litres=1)
    assert doubled(one, []) == doubled(one, []) == doubled(one, extra=2) == doubled(one, extra=2)
    assert len(calls) == 4
