"""A shopping list as CSV."""

import csv
import io

from reedmace.core.fit import ShoppingListAnswer


def write_shopping(answer: ShoppingListAnswer) -> str:
    """CSV text of a list: item, amount, unit, need, why. answer: as computed."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(("item", "amount", "unit", "need", "why"))
    for i in answer.items:
        writer.writerow((i.item, f"{i.amount:.4g}", i.unit, i.need, i.why))
    return out.getvalue()
