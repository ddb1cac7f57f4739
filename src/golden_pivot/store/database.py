"""One SQLite file: opening it, bringing its schema up to date, and one transaction a user action."""

from __future__ import annotations

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

_MIGRATIONS = Path(__file__).parent / "migrations"


class NewerDatabase(RuntimeError):
    """The file was written by a later version of the program."""


def migrations() -> list[tuple[int, str, str]]:
    """(number, name, SQL) in order. An applied migration is never edited; a change is a new file."""
    found = []
    for path in sorted(_MIGRATIONS.glob("[0-9]*.sql")):
        number, _, name = path.stem.partition("_")
        found.append((int(number), name, path.read_text(encoding="utf-8")))
    return found


def _statements(sql: str) -> Iterator[str]:
    """The statements of a script. `executescript` would commit the transaction around them."""
    gathered = ""
    for row in sql.splitlines(keepends=True):
        gathered += row
        if sqlite3.complete_statement(gathered):
            yield gathered
            gathered = ""
    if gathered.strip():
        yield gathered


class Database:
    """A connection that one thread uses at a time. Write-ahead log, foreign keys, synced before it answers."""

    def __init__(self, path: Path | str, read_only: bool = False) -> None:
        self._lock = threading.RLock()
        if read_only:
            self._connection = sqlite3.connect(f"file:{path}?mode=ro", uri=True, check_same_thread=False)
        else:
            if str(path) != ":memory:":
                Path(path).parent.mkdir(parents=True, exist_ok=True)
            self._connection = sqlite3.connect(path, check_same_thread=False, timeout=10)
        self._connection.isolation_level = None
        self._connection.row_factory = sqlite3.Row
        self._connection.execute("PRAGMA foreign_keys = ON")
        if not read_only:
            self._connection.execute("PRAGMA journal_mode = WAL")
            # A save is acknowledged only once it is on the disk.
            self._connection.execute("PRAGMA synchronous = FULL")
            self._migrate()

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """Everything inside happens, or nothing does. May be nested: the outermost one counts."""
        with self._lock:
            if self._connection.in_transaction:
                yield self._connection
                return
            self._connection.execute("BEGIN IMMEDIATE")
            try:
                yield self._connection
            except BaseException:
                self._connection.execute("ROLLBACK")
                raise
            self._connection.execute("COMMIT")

    def rows(self, sql: str, *values: object) -> list[sqlite3.Row]:
        with self._lock:
            return self._connection.execute(sql, values).fetchall()

    def row(self, sql: str, *values: object) -> sqlite3.Row | None:
        return next(iter(self.rows(sql, *values)), None)

    def close(self) -> None:
        with self._lock:
            self._connection.close()

    def _migrate(self) -> None:
        self._connection.execute(
            "CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY, name TEXT NOT NULL)"
        )
        known = migrations()
        applied = {row["number"] for row in self.rows("SELECT number FROM migration")}
        if applied - {number for number, _, _ in known}:
            raise NewerDatabase(
                "this shelf was written by a later version of Golden Pivot; start that version, or another shelf"
            )
        for number, name, sql in known:
            if number not in applied:
                with self.transaction() as connection:
                    for statement in _statements(sql):
                        connection.execute(statement)
                    connection.execute("INSERT INTO migration (number, name) VALUES (?, ?)", (number, name))
