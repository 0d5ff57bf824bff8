"""Open formats in and out: readings as CSV, plumbing as EPANET .inp."""

from reedmace.formats.epanet import plumbing_inp
from reedmace.formats.readings import RowError, read_csv, reading_key, write_csv

__all__ = ["RowError", "plumbing_inp", "read_csv", "reading_key", "write_csv"]
