"""Files that the command line writes: beside their place and moved, so that nobody finds half of one; for their owner alone."""

from __future__ import annotations

import contextlib
import os
from pathlib import Path

from .asked import refuse


def write_whole(out: Path, data: bytes) -> None:
    beside = out.with_name(f".{out.name}.part")
    try:
        with os.fdopen(os.open(beside, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, 0o600), "wb") as file:
            file.write(data)
        beside.replace(out)
    except OSError as error:
        with contextlib.suppress(OSError):
            beside.unlink(missing_ok=True)
        raise refuse(f"{out} cannot be written: {error.strerror}.") from error
