"""A shopping list as CSV."""

import csv
import io

from reedmace.core.fit import ShoppingListAnswer
from reedmace.core.quantity import formatting


def plain(text: str) -> str:
    """A cell safe from being read as a formula. text: the cell's."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t", "\r") else text


def write_shopping(answer: ShoppingListAnswer) -> str:
    """CSV text of a list: item, amount, unit, need, why. answer: as computed."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(("item", "amount", "unit", "need", "why"))
    for i in answer.items:
        kind = formatting.BY_HOME_UNIT.get(i.unit)
        amount, unit = (kind.bare(i.amount, ".4g"), kind.name) if kind else (f"{i.amount:.4g}", i.unit)
        writer.writerow((plain(i.item), amount, unit, i.need, plain(i.why)))
    return out.getvalue()
