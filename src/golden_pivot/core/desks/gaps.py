"""Lines with gaps such as {value}, filled by plain substitution: no width, no conversion, no attribute can be asked for."""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping

_GAP = re.compile(r"\{([^{}]*)\}")


def strange_gap(line: str, known: Collection[str]) -> str | None:
    """What stands in a gap and is none of these, or a brace that opens or closes none; None where all is well.

    >>> strange_gap("the {value:>9}", {"value"})
    'value:>9'
    """
    for gap in _GAP.findall(line):
        if gap not in known:
            return str(gap)
    rest = _GAP.sub("", line)
    return next((brace for brace in "{}" if brace in rest), None)


def filled(line: str, values: Mapping[str, str]) -> str:
    """The line with its gaps filled. Raises KeyError for one that is not known."""
    return _GAP.sub(lambda gap: values[gap[1]], line)
