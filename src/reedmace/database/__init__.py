"""Connections to MariaDB and versioned migrations; imports nothing of Reedmace, so that a launcher migrates at once."""

from reedmace.database.connection import ANSWER_S, MIGRATE_S, AllBusy, Database, connect, migrate, written_together

__all__ = ["ANSWER_S", "MIGRATE_S", "AllBusy", "Database", "connect", "migrate", "written_together"]
