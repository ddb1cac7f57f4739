"""Numbers, lists and runs as one says them: the one place where words take their forms."""

from __future__ import annotations

from collections.abc import Iterable, Sequence


def counted(number: int, thing: str) -> str:
    """
    >>> counted(1, "card"), counted(12, "path"), counted(1200, "path")
    ('1 card', '12 paths', '1,200 paths')
    """
    return f"{number:,} {thing}{'' if number == 1 else 's'}"


def ordinal(number: int) -> str:
    """
    >>> [ordinal(n) for n in (1, 2, 3, 4, 11, 12, 13, 21, 102, 111)]
    ['1st', '2nd', '3rd', '4th', '11th', '12th', '13th', '21st', '102nd', '111th']
    """
    tail = "th" if number % 100 in (11, 12, 13) else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return f"{number}{tail}"


def list_text(names: Sequence[str], last: str = "and") -> str:
    """
    >>> list_text(["a", "b", "c"])
    'a, b and c'
    """
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} {last} {names[-1]}"


def runs_text(values: Iterable[int]) -> str:
    """
    >>> runs_text([1, 2, 3, 7, 9, 10])
    '1 to 3, 7, 9 or 10'
    """
    ordered = sorted(set(values))
    runs: list[list[int]] = []
    for value in ordered:
        if runs and value == runs[-1][-1] + 1:
            runs[-1].append(value)
        else:
            runs.append([value])
    pieces = [
        str(run[0]) if len(run) == 1 else f"{run[0]} or {run[1]}" if len(run) == 2 else f"{run[0]} to {run[-1]}"
        for run in runs
    ]
    return ", ".join(pieces)
