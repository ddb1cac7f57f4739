"""The demo shelf: the evening programme of a fictional night ferry."""

from __future__ import annotations

from pathlib import Path

_FOLDER = Path(__file__).parent


def demo_names() -> list[str]:
    """Names for `demo:NAME`, in the order of the programme."""
    programme = (_FOLDER / "programme.txt").read_text(encoding="utf-8").split()
    return [name for name in programme if (_FOLDER / f"{name}.pivot").exists()]


def demo_text(name: str) -> str:
    """The text of a demo routine. Raises KeyError for a name that is not on the programme."""
    if name not in demo_names():
        raise KeyError(name)
    return (_FOLDER / f"{name}.pivot").read_text(encoding="utf-8")
