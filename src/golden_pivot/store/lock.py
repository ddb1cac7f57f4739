"""One program writes a shelf's file at a time; whoever comes second is told where the first one runs."""

from __future__ import annotations

import contextlib
import os
from pathlib import Path

from filelock import FileLock, Timeout

from ..core.faults import PivotError


class Taken(PivotError, RuntimeError):
    """Another program has the file open to write in it; `address` is where it serves, if it does."""

    def __init__(self, path: Path, address: str | None) -> None:
        where = f" at {address}" if address else ""
        do = f"Open {address} instead, or end it first." if address else "Wait until it is done, or end it."
        super().__init__(f"Golden Pivot already runs{where} over the shelf {path}. {do}")
        self.address = address


class Writing:
    """The right to write a shelf's file, until `release` or the end of the process."""

    def __init__(self, path: Path) -> None:
        """Raises Taken."""
        path.parent.mkdir(parents=True, exist_ok=True)
        self._told = path.with_name(f"{path.name}.address")
        self._lock = FileLock(path.with_name(f"{path.name}.lock"), mode=0o600)
        try:
            self._lock.acquire(timeout=0)
        except Timeout:
            address = None
            with contextlib.suppress(OSError):
                address = self._told.read_text(encoding="ascii").strip() or None
            raise Taken(path, address) from None
        self._told.unlink(missing_ok=True)

    def serve_at(self, address: str) -> None:
        """Tells those who come later where the shelf can be used."""
        part = self._told.with_name(f"{self._told.name}.part")
        with os.fdopen(os.open(part, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, 0o600), "w", encoding="ascii") as file:
            file.write(address)
        part.replace(self._told)

    def release(self) -> None:
        with contextlib.suppress(OSError):
            self._told.unlink(missing_ok=True)
        self._lock.release()
