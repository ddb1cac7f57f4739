"""One SQLite file: opening it, bringing its schema up to date, one transaction a user action, and noticing damage."""

from __future__ import annotations

import contextlib
import os
import sqlite3
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from .trouble import DAMAGED, FOREIGN, GONE, LOCKED, NEWER, ShelfTrouble, trouble_of

_MIGRATIONS = Path(__file__).parent / "migrations"
APPLICATION = 1196447796
"""stands in the head of each file of ours; "GPvt" in ASCII"""
MEMORY = ":memory:"
CHECK_EVERY = 5.0
"""seconds between two looks at the whole file while it is written: what others do to it is noticed this soon"""


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


def is_sound(path: Path | str) -> bool:
    """Whether SQLite finds nothing wrong with the file, read afresh."""
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True, timeout=10)) as connection:
            return [tuple(row) for row in connection.execute("PRAGMA quick_check(1)")] == [("ok",)]
    except sqlite3.DatabaseError as error:
        trouble = trouble_of(error, path)
        if trouble is None or trouble.kind == DAMAGED:
            return False
        raise trouble from error


class Database:
    """A connection that one thread uses at a time. Write-ahead log, foreign keys, synced before it answers.

    Raises ShelfTrouble for a file that cannot be used. With `even_damaged` a damaged file is no error yet: it is
    held in `trouble`, and every use of it raises that until `swap` has put a sound file in its place.
    """

    def __init__(
        self, path: Path | str, read_only: bool = False, even_damaged: bool = False, check_every: float = CHECK_EVERY,
        before_migrating: Callable[[Database], object] | None = None,
    ) -> None:  # fmt: skip
        self._lock = threading.RLock()
        self.path = None if str(path) == MEMORY else Path(path)
        self._read_only, self._check_every, self._checked = read_only, check_every, time.monotonic()
        self._before_migrating = before_migrating
        self._connection: sqlite3.Connection | None = None
        self.trouble: ShelfTrouble | None = None
        try:
            self._open()
        except ShelfTrouble as trouble:
            self.close()
            if not (even_damaged and trouble.kind == DAMAGED):
                raise
            self.trouble = trouble

    # Opening

    def _open(self) -> None:
        with self._as_trouble():
            if self._read_only:
                if self.path is None or not self.path.is_file():
                    raise ShelfTrouble(GONE, self.path)
                self._connect(f"file:{self.path}?mode=ro")
            elif self.path is None:
                self._connect(MEMORY)
            else:
                self.path.parent.mkdir(parents=True, exist_ok=True)
                # A routine is nobody else's business: the file is its owner's alone from the beginning.
                with contextlib.suppress(FileExistsError):
                    os.close(os.open(self.path, os.O_CREAT | os.O_EXCL | os.O_RDWR, 0o600))
                if self.path.stat().st_size and not is_sound(self.path):
                    raise ShelfTrouble(DAMAGED, self.path)
                self._connect(str(self.path))
            self._belongs_to_us()
            if self._read_only:
                self._bring_a_copy_up_to_date()
            else:
                self._set_up()
            self._file = None if self.path is None else _inode(self.path)

    def _connect(self, name: str) -> None:
        self._connection = sqlite3.connect(name, uri=name.startswith("file:"), check_same_thread=False, timeout=10)
        self._connection.isolation_level = None
        self._connection.row_factory = sqlite3.Row
        # What is no text in the file is shown as far as it is: one bad row must not hide the others.
        self._connection.text_factory = lambda data: data.decode("utf-8", "replace")
        self._connection.execute("PRAGMA foreign_keys = ON")

    def _belongs_to_us(self) -> None:
        """Raises for a file of another program, or of a later version of this one."""
        c = self._use()
        tables = {row["name"] for row in c.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
        (application,) = c.execute("PRAGMA application_id").fetchone()
        ours = application == APPLICATION or (
            application == 0 and (tables <= {"migration"} or {"migration", "routine"} <= tables)
        )
        if not ours:
            raise ShelfTrouble(FOREIGN, self.path)
        if "migration" in tables:
            applied = {row["number"] for row in c.execute("SELECT number FROM migration")}
            if applied - {number for number, _, _ in migrations()}:
                raise ShelfTrouble(NEWER, self.path)

    def _bring_a_copy_up_to_date(self) -> None:
        """A file of an earlier version is read as what it would become; the file itself is left alone."""
        c = self._use()
        if self._missing(c):
            self._connect(MEMORY)
            c.backup(self._use())
            c.close()
            self._migrate(self._use())

    def _set_up(self) -> None:
        c = self._use()
        # Several first starts at once: whoever comes second waits until the first is done.
        for tries in range(50):
            try:
                c.execute("PRAGMA journal_mode = WAL")
                break
            except sqlite3.OperationalError:
                if tries == 49:
                    raise
                time.sleep(0.1)
        # A save is acknowledged only once it is on the disk.
        c.execute("PRAGMA synchronous = FULL")
        tables = {row["name"] for row in c.execute("SELECT name FROM sqlite_master")}
        if self._before_migrating and "migration" in tables and self._missing(c):
            self._before_migrating(self)
        c.execute("BEGIN EXCLUSIVE")
        try:
            self._migrate(c)
        except BaseException:
            if c.in_transaction:
                c.execute("ROLLBACK")
            raise
        c.execute("COMMIT")

    @staticmethod
    def _migrate(c: sqlite3.Connection) -> None:
        """All that is missing, in one transaction: it is there whole or not at all."""
        c.execute("CREATE TABLE IF NOT EXISTS migration (number INTEGER PRIMARY KEY, name TEXT NOT NULL)")
        for number, name, sql in Database._missing(c):
            for statement in _statements(sql):
                c.execute(statement)
            c.execute("INSERT INTO migration (number, name) VALUES (?, ?)", (number, name))

    @staticmethod
    def _missing(c: sqlite3.Connection) -> list[tuple[int, str, str]]:
        applied = {row["number"] for row in c.execute("SELECT number FROM migration")}
        return [migration for migration in migrations() if migration[0] not in applied]

    # Use

    def _use(self) -> sqlite3.Connection:
        if self.trouble:
            raise self.trouble
        if self._connection is None:  # it was swapped, and what took its place could not be opened
            raise ShelfTrouble(GONE, self.path)
        return self._connection

    @contextmanager
    def alone(self) -> Iterator[None]:
        """Nobody else uses it meanwhile: they wait."""
        with self._lock:
            yield

    @contextmanager
    def _as_trouble(self) -> Iterator[None]:
        """Errors of the file are told as such, and damage ends all use of it."""
        try:
            yield
        except (sqlite3.Error, OSError) as error:
            trouble = trouble_of(error, self.path)
            if trouble is None:
                raise
            if trouble.kind == DAMAGED:
                self.trouble = trouble
            raise trouble from error

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """Everything inside happens, or nothing does. May be nested: the outermost one counts."""
        with self._lock, self._as_trouble():
            c = self._use()
            if c.in_transaction:
                yield c
                return
            self._is_still_there()
            c.execute("BEGIN IMMEDIATE")
            try:
                yield c
                c.execute("COMMIT")
            except BaseException:
                if c.in_transaction:
                    c.execute("ROLLBACK")
                raise

    def _is_still_there(self) -> None:
        """Raises where the file was moved, replaced or spoilt by others since it was last looked at."""
        if self.path is None:
            return
        if _inode(self.path) != self._file:
            raise ShelfTrouble(GONE, self.path)
        if time.monotonic() - self._checked >= self._check_every:
            if not is_sound(self.path):
                self.trouble = ShelfTrouble(DAMAGED, self.path)
                raise self.trouble
            self._checked = time.monotonic()

    def state_of_file(self) -> ShelfTrouble | None:
        """What is the matter with the file, looked at afresh; None where all is well."""
        with self._lock:
            if self.trouble is None and self.path is not None:
                if _inode(self.path) != self._file:
                    return ShelfTrouble(GONE, self.path)
                if not is_sound(self.path):
                    self.trouble = ShelfTrouble(DAMAGED, self.path)
            return self.trouble

    def rows(self, sql: str, *values: object) -> list[sqlite3.Row]:
        with self._lock, self._as_trouble():
            return self._use().execute(sql, values).fetchall()

    def row(self, sql: str, *values: object) -> sqlite3.Row | None:
        return next(iter(self.rows(sql, *values)), None)

    def copy_to(self, path: Path) -> None:
        """A whole copy of what is in it now, by SQLite's own means, sound and on the disk before this returns.

        Other uses wait no longer than it takes. The copy appears under its name only when it is whole.
        """
        part = path.with_name(f"{path.name}.part")
        with self._lock, self._as_trouble():
            source = self._use()
            try:
                part.unlink(missing_ok=True)
                os.close(os.open(part, os.O_CREAT | os.O_RDWR, 0o600))
                with closing(sqlite3.connect(part)) as copy:
                    source.backup(copy)
                    copy.execute("PRAGMA journal_mode = DELETE")
                if not is_sound(part):
                    self.trouble = ShelfTrouble(DAMAGED, self.path)
                    raise self.trouble
                _settle(part)
                part.replace(path)
                _settle(path.parent)
            finally:
                part.unlink(missing_ok=True)

    def swap(self, new: Path, aside: Path | None) -> None:
        """Puts a sound file in the place of this one, at no moment leaving none.

        What was there is given a second name first, if one is asked for: of a damaged file everything is kept.
        """
        assert self.path
        with self._lock, self._as_trouble():
            log, shared = (self.path.with_name(f"{self.path.name}{end}") for end in ("-wal", "-shm"))
            if self._connection and not self.trouble and self.path.exists():
                busy, *_ = self._connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
                if busy:
                    raise ShelfTrouble(LOCKED, self.path)
            self.close()
            if aside and self.path.exists():
                os.link(self.path, aside)
                if log.exists():
                    log.rename(aside.with_name(f"{aside.name}-wal"))
            for left in (log, shared):
                left.unlink(missing_ok=True)
            new.replace(self.path)
            _settle(self.path.parent)
            self.trouble = None
            self._open()

    def close(self) -> None:
        with self._lock:
            if self._connection:
                with contextlib.suppress(sqlite3.Error):
                    self._connection.close()
            self._connection = None


def _inode(path: Path) -> tuple[int, int] | None:
    try:
        found = path.stat()
    except FileNotFoundError:
        return None
    return found.st_dev, found.st_ino


def _settle(path: Path) -> None:
    """Waits until a file, or what a folder lists, is on the disk."""
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
