"""What a question's own data give is worked out once: a log or a state remembers what pure functions made of it."""

from collections.abc import Callable, Mapping
from functools import wraps
from typing import Any, Concatenate, ParamSpec, Self, TypeVar

from pydantic import PrivateAttr

from reedmace.core.contract import Part

P = ParamSpec("P")
R = TypeVar("R")


class _Memory(dict[object, Any]):
    """What was worked out; no part of what the thing is, so it never makes two of them unlike."""

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Memory)

    __hash__ = None


class Remembers(Part):
    """Data that no longer change once they are asked, and remember what was worked out from them."""

    _worked_out: _Memory = PrivateAttr(default_factory=_Memory)

    def model_copy(self, *, update: Mapping[str, Any] | None = None, deep: bool = False) -> Self:
        """Another of the same: what was worked out from this one does not hold for it."""
        copy = super().model_copy(update=update, deep=deep)
        copy._worked_out = _Memory()
        return copy


S = TypeVar("S", bound=Remembers)


def worked_out_once(function: Callable[Concatenate[S, P], R]) -> Callable[Concatenate[S, P], R]:
    """Work a function out once for each of its first argument and the same further ones.

    function: pure; its first argument no longer changes; what it gives is read by several and changed by none.
    """

    @wraps(function)
    def once(of: S, /, *args: P.args, **kwargs: P.kwargs) -> R:
        if kwargs or any(isinstance(a, list | dict) for a in args):
            return function(of, *args, **kwargs)
        # Read where pydantic keeps it: asking for it by name costs more than many of the sums.
        memory = (of.__pydantic_private__ or {})["_worked_out"]
        key = (function, *args)
        if key not in memory:
            memory[key] = function(of, *args, **kwargs)
        found: R = memory[key]
        return found

    return once
