"""An address as a square code that a phone's camera opens."""

from typing import NamedTuple

import segno


class AddressCode(NamedTuple):
    """The dark cells of a code as an SVG path in cells, and its side in cells, quiet border included."""

    path: str
    side: int


BORDER = 4
"""Light cells around the code. Source: ISO/IEC 18004."""


def address_code(address: str) -> AddressCode:
    """The code of an address. address: what the camera opens, up to a few hundred letters.

    Level M: it is read though a seventh of it is wet or scratched. Source: ISO/IEC 18004, by the segno library.
    """
    cells = segno.make(address, error="m", micro=False).matrix
    runs = []
    for y, row in enumerate(cells, start=BORDER):
        x = 0
        while x < len(row):
            wide = 0
            while x + wide < len(row) and row[x + wide]:
                wide += 1
            if wide:
                runs.append(f"M{x + BORDER} {y}h{wide}v1h-{wide}z")
            x += max(wide, 1)
    return AddressCode("".join(runs), len(cells) + 2 * BORDER)
