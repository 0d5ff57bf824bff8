"""The examples in the core's docstrings hold, those of compiled functions too."""

import doctest
import inspect
import pkgutil
from collections.abc import Iterator
from importlib import import_module

import pytest

import reedmace.core

FEWEST = 50


def examples() -> Iterator[doctest.DocTest]:
    finder = doctest.DocTestFinder(exclude_empty=True, recurse=False)
    for info in pkgutil.walk_packages(reedmace.core.__path__, "reedmace.core."):
        module = import_module(info.name)
        for name, found in vars(module).items():
            function = getattr(found, "py_func", found)
            if inspect.isfunction(function) and function.__module__ == info.name:
                yield from finder.find(function, f"{info.name}.{name}", globs=dict(vars(module)))


EXAMPLES = [test for test in examples() if test.examples]


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda test: test.name.removeprefix("reedmace.core."))
def test_an_example_in_a_docstring_holds(example: doctest.DocTest) -> None:
    printed: list[str] = []
    result = doctest.DocTestRunner().run(example, out=printed.append)
    assert not result.failed, "".join(printed)


def test_the_numerics_show_examples() -> None:
    assert sum(len(test.examples) for test in EXAMPLES) >= FEWEST
