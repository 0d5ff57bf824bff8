"""Memoizes pure functions of immutable data: results are stored with the log or state they were computed from."""

from collections.abc import Callable, Mapping
from functools import wraps
from typing import Any, Concatenate, ParamSpec, Self, TypeVar

from pydantic import PrivateAttr

from reedmace.core.contract import Part

P = ParamSpec("P")
R = TypeVar("R")


class _MemoStore(dict[object, Any]):
    """Stored results; not part of the value, so two equal objects with different results stay equal."""

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _MemoStore)

    __hash__ = None


class Memoizing(Part):
    """Immutable data that stores the results of functions decorated with `memoize`."""

    _memo: _MemoStore = PrivateAttr(default_factory=_MemoStore)

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """A copy without stored results."""
        copy = super().model_copy(update=update, deep=deep)
        copy._memo = _MemoStore()
        return copy


S = TypeVar("S", bound=Memoizing)


def memoize(function: Callable[Concatenate[S, P], R]) -> Callable[Concatenate[S, P], R]:
    """Memoize a function by its first argument's identity and its further arguments.

    function: pure; its first argument no longer changes; what it gives is read by several and changed by none.
    """

    @wraps(function)
    def once(of: S, /, *args: P.args, **kwargs: P.kwargs) -> R:
        if kwargs or any(isinstance(a, list | dict) for a in args):
            return function(of, *args, **kwargs)
        # Read from pydantic's private storage: attribute access costs more than many of the computations.
        memory = (of.__pydantic_private__ or {})["_memo"]
        key = (function, *args)
        if key not in memory:
            memory[key] = function(of, *args, **kwargs)
        found: R = memory[key]
        return found

    return once
