"""How paths are counted and spoken of: the one rule, for verdicts, regions, slips, sweeps and sheets.

A **path** is one way to take every choice and for every card that is looked at to be what it can be. A path
**holds** when all claims hold that it comes to, **fails** when one does not or when it gets stuck. A claim is
**reached** by a path that comes to it; paths may end before, in a case of their own. Where something may be repeated
without end there is no number of paths, and none is told: only whether any fails, or all. Nor is one told where the
search stopped before all were counted, and it is known only that some fail.
"""

from __future__ import annotations

from dataclasses import dataclass

_SUPERSCRIPT = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")


NOT_COUNTED = "on how many was not settled"


@dataclass(frozen=True)
class Count:
    """Paths of a routine. `None` where they have no number, or were not counted."""

    paths: int | None
    """all there are, those that get stuck or start again among them"""
    failing: int | None
    reached: int | None
    """those that come to some claim of an ending, get stuck, or start again"""
    again: int | None = 0
    """those that start again"""
    some_fail: bool = False
    all_fail: bool = False
    some_miss: bool = False
    """not every path comes to a claim"""
    some_stuck: bool = False
    """not every path can be gone to its end"""
    counted: bool = True
    """all paths were gone; else it is known only that some fail, perhaps all"""

    @property
    def share(self) -> float | None:
        """Of the paths that fail, 0 to 1; None where some fail and they have no number."""
        if self.paths and self.failing is not None:
            return self.failing / self.paths
        return 1.0 if self.all_fail else None if self.some_fail else 0.0

    @property
    def text(self) -> str:
        """`5,832 paths`, `holds on 7 of 19 paths`; empty where they have no number."""
        if not self.counted:
            return NOT_COUNTED
        if self.paths is None:
            return ""
        said = holds_on(self.paths - self.failing, self.paths).lower() if self.failing else paths_text(self.paths)
        if self.some_miss and self.reached is not None:
            said += f", {figures(self.reached)} of them come to a claim"
        return said + (f", {figures(self.again)} of them start again" if self.again else "")

    @property
    def failure(self) -> str:
        """`Fails on 12 of 19 paths.`, `Fails on some paths.`, `Fails, whatever they choose.`; empty where none does."""
        if self.all_fail:
            return "Fails, whatever they choose."
        if not self.some_fail:
            return ""
        if not self.counted:
            return f"Fails on some paths at least; {NOT_COUNTED}."
        return (
            "Fails on some paths." if self.paths is None else f"Fails on {of_paths(self.failing or 0, self.paths)}."
        )


def figures(number: int) -> str:
    """In figures up to a billion, then by powers of ten: nobody reads forty figures.

    >>> figures(5832), figures(139_968 * 10**9)
    ('5,832', '1.40 × 10¹⁴')
    """
    if number < 10**9:
        return f"{number:,}"
    power = len(str(number)) - 1
    return f"{number / 10**power:.2f} × 10{str(power).translate(_SUPERSCRIPT)}"


def paths_text(paths: int) -> str:
    return "1 path" if paths == 1 else f"{figures(paths)} paths"


def of_paths(part: int, whole: int) -> str:
    """
    >>> of_paths(216, 5832), of_paths(1, 1)
    ('216 of 5,832 paths', '1 of 1 path')
    """
    return f"{figures(part)} of {paths_text(whole)}"


def holds_on(part: int, whole: int) -> str:
    return f"Holds on {of_paths(part, whole)}"
