"""Open formats in and out.

Readings, boxes and shopping list as CSV, a logbook as a JSON bundle, plumbing as an EPANET .inp, the cycle model as
SBML, care as iCalendar.
"""

from reedmace.formats.boxes_csv import read_boxes, write_boxes
from reedmace.formats.bundle import Bundle, bundle_parts, bundle_schema
from reedmace.formats.calendar import write_calendar
from reedmace.formats.csv_rows import RowError
from reedmace.formats.epanet import plumbing_inp
from reedmace.formats.events_csv import Tank as HappeningTank
from reedmace.formats.events_csv import event_key, read_events, write_events
from reedmace.formats.mapped_csv import FoundColumn, FoundRow, MappedCsv, read_mapped
from reedmace.formats.readings_csv import csv_parts, read_csv, reading_key
from reedmace.formats.sbml import cycle_sbml
from reedmace.formats.shopping_csv import write_shopping

__all__ = [
    "Bundle",
    "FoundColumn",
    "FoundRow",
    "HappeningTank",
    "MappedCsv",
    "RowError",
    "bundle_parts",
    "bundle_schema",
    "csv_parts",
    "cycle_sbml",
    "event_key",
    "plumbing_inp",
    "read_boxes",
    "read_csv",
    "read_events",
    "read_mapped",
    "reading_key",
    "write_boxes",
    "write_calendar",
    "write_events",
    "write_shopping",
]
