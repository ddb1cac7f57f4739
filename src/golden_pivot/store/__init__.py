"""What is kept: routines, their versions, settings, and copies of it all. SQLite through plain SQL."""

from .archive import Archive, NotAnArchive, archive_of, joined, packed, preview, read_archive, take_in
from .backups import Backup, Backups
from .book import Book, new_uid
from .database import Database
from .findings import Findings
from .lock import Taken, Writing
from .opening import ShelfFile, open_shelf_file
from .practice import Practice
from .programmes import Programme, Programmes, StaleProgramme
from .salvage import salvaged
from .shelf import Archived, Routine, Shelf, StaleRevision, Unknown, Version
from .standing import Standing, Standings
from .trouble import ShelfTrouble

__all__ = [
    "Archive", "Archived", "Backup", "Backups", "Book", "Database", "Findings", "NotAnArchive", "Practice", "Programme", "Programmes", "Routine", "Shelf", "ShelfFile", "ShelfTrouble",
    "StaleProgramme", "StaleRevision", "Standing", "Standings", "Taken", "Unknown", "Version", "Writing", "archive_of", "joined", "new_uid", "open_shelf_file",
    "packed", "preview", "read_archive", "salvaged", "take_in",
]  # fmt: skip
