"""What is kept: routines, their versions, settings. SQLite through plain SQL."""

from .database import Database, NewerDatabase
from .shelf import Routine, Shelf, StaleRevision, Unknown, Version

__all__ = ["Database", "NewerDatabase", "Routine", "Shelf", "StaleRevision", "Unknown", "Version"]
