"""What the tests of the show share."""

from __future__ import annotations

from pathlib import Path

from golden_pivot import demo
from golden_pivot.core.language.parser import read_routine

FILES = Path(__file__).parents[2] / "procedures"
SHOWN = [name for name in demo.demo_names() if not read_routine(demo.demo_text(name)).faults]
"""demo routines that can be proved"""


def file_text(name: str) -> str:
    return (FILES / f"{name}.pivot").read_text(encoding="utf-8")
