"""What is said of a routine: is it so on every path, and if not, how does it fail?"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, field

from ..search.counted import Count
from .landings import Landing
from .refuting import Counterexample
from .regions import Region

PROVED, REFUTED, UNSETTLED = "proved", "refuted", "unsettled"
FIXED, RULE, ONE_OF, LOST = "fixed", "rule", "one-of", "lost"


@dataclass(frozen=True)
class Asked:
    """What is asked of a proof beside whether it holds."""

    example: bool = True
    """how it fails: the least path that does"""
    region: bool = True
    """with which choices it then holds"""
    some_claim: bool = True
    """that no path comes to any claim is a fault; else each is told as reached by none"""
    places: bool = True
    """where the card lies at the end; else only where nothing is claimed, or every path fails"""
    told: Collection[str] | None = None
    """where the card then is by all that one is told, even where a formula says as much; these numbers are part of what
    one is told, though no line may go by them"""


EVERYTHING = Asked()
WHETHER = Asked(example=False, region=False)
"""whether it holds, and where the card lies"""


@dataclass(frozen=True)
class Claim:
    line: int
    text: str
    holds: bool
    failing_paths: int | None
    """of those that come to it, and those that get stuck; None where paths have no number"""
    reached: int | None
    """paths that come to it"""
    denied: bool = False
    """some path came to it and it was not so, whatever became of that path afterwards"""


@dataclass(frozen=True)
class Verdict:
    verdict: str
    headline: str
    landing: Landing | None = None
    claims: tuple[Claim, ...] = ()
    paths: int | None = None
    """choice assignments before merging; None when they were not all counted, or are without end"""
    again_paths: int | None = 0
    """of these, the paths that start again"""
    failing_paths: int | None = 0
    """None where paths have no number"""
    count: Count | None = None
    """the same with what may be said of it; None for an unsettled verdict"""
    told: tuple[str, ...] = ()
    """numbers the performer has been told, where nothing is claimed"""
    whereabouts: Mapping[tuple[int, ...], Mapping[tuple[str, int], int]] = field(default_factory=dict)
    """their values → where the card may then be → on how many paths, where nothing is claimed and no `landing.claim` says it"""
    states_widest: int = 0
    transitions: int = 0
    covers_every_order: bool = True
    """of the cards that are not placed; False where the whole pack is in a stated order"""
    covers: str = ""
    """the same in words"""
    seconds: float = 0.0
    counterexample: Counterexample | None = None
    holds_when: Region | None = None
    assumed: tuple[str, ...] = ()
    limit: str | None = None
    """what the budget ran out of, for an unsettled verdict, and for one that is refuted by a path drawn at random"""

    @property
    def counted(self) -> str:
        """On how many paths it holds, in words, and whether the path told is the least; empty where paths have no number."""
        drawn = self.counterexample and not self.counterexample.least
        return "; ".join(
            filter(None, ["perhaps not the shortest way" if drawn else "", self.count.text if self.count else ""])
        )
