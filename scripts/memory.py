"""The most memory a process has held."""

from __future__ import annotations

import resource
from pathlib import Path


def peak() -> float:
    """MB held at most by this process, since its program was started.

    What the system says of resources used begins, in a child, with the most its parent held before: so not that, where there is more to read.
    """
    status = Path("/proc/self/status")
    rows = status.read_text(encoding="ascii").splitlines() if status.exists() else []
    own = next((int(row.split()[1]) for row in rows if row.startswith("VmHWM")), None)
    return (own if own is not None else resource.getrusage(resource.RUSAGE_SELF).ru_maxrss) / 1024
