"""Open formats in and out: readings, catalogue and shopping list as CSV, plumbing as EPANET .inp, what comes next as iCalendar."""

from reedmace.formats.calendar import write_calendar
from reedmace.formats.catalogue import read_catalogue, write_catalogue
from reedmace.formats.epanet import plumbing_inp
from reedmace.formats.readings import read_csv, reading_key, write_csv
from reedmace.formats.shopping import write_shopping
from reedmace.formats.tables import RowError

__all__ = [
    "RowError",
    "plumbing_inp",
    "read_catalogue",
    "read_csv",
    "reading_key",
    "write_calendar",
    "write_catalogue",
    "write_csv",
    "write_shopping",
]
