"""A kind of step as everybody sees it: one frozen record, from which everything else follows. See steps/declare.py."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from .facets import Facet
from .templates import PERFORMER, Element

Meaning = Callable[[Any], None]
"""(what builds the program) → it adds the instructions of the line at hand; see building/"""
Free = Callable[[Mapping[str, Any]], str | None]
"""(values of the slots) → how one speaks of what was free, as in `You cut where you liked`; None where nothing was"""

CHANCE = "chance"
"""who decides, beside spectator and performer"""

PAGE, SETUP, HANDLING, ENDING = "page", "set-up", "handling", "ending"
"""phases of a routine: what is written about it, what lies ready, what is done, what must come out"""


HANDS = ("Cards", "Counting", "Blocks", "Piles", "Mixes")
"""families of steps in which hands do something"""


@dataclass(frozen=True)
class StepKind:
    name: str
    """also its tag in the JSON form"""
    family: str
    """shelf of the palette it stands on"""
    phase: str
    sentence: str
    elements: tuple[Element, ...]
    summary: str
    notes: str
    example: str
    means: Meaning
    """adds its instructions to the program that is being built"""
    opens_block: bool
    bold: bool
    """set in bold on the sheet"""
    heard: tuple[tuple[str, str], ...] = ()
    """(what went wrong, sentence) of other handlings it can be taken for; `{slot}` stands for the words in that slot"""
    wordings: tuple[str, ...] = ()
    """other ways in which performers write it; see reading/wordings.py"""
    firm: frozenset[str] = frozenset()
    """slots that no hand gets wrong"""
    does: str = ""
    """what it does with the order of cards, as a clause for the explanation"""
    is_handled: bool = True
    """something is done on the table, so that it can be left out or done twice"""
    singly: bool = False
    """cards pass one at a time, which takes time"""
    shows: bool = False
    """faces come to be seen in it by everybody"""
    sees: str = ""
    """what whoever does it sees and nobody else, written as `says`"""
    says: str = ""
    """how one may ask the spectator for it, see language/spoken.py; without it, the sentence itself serves"""
    yours: frozenset[str] = frozenset()
    """slots that the performer must know although the spectator acts"""
    finds: frozenset[str] = frozenset()
    """slots of cards that are only looked for: one can be found that lies alone, or shows another side than all with it"""
    facets: frozenset[Facet] = frozenset()
    """what it is to those who speak about routines"""
    by: str = PERFORMER
    """who acts where the line does not say"""
    free: Free = lambda values: None
    domains: Mapping[str, range] = field(default_factory=dict)
    """slot → numbers tried for a blank there, where the size of the pack says nothing"""
    is_question: bool = False
    """it asks for odds; nobody does anything"""
    is_case: bool = False
    """its lines are carried out in one case only"""

    def actor(self, values: Mapping[str, Any]) -> str:
        """Who acts in such a line: the spectator, chance, or the performer."""
        return str(values.get("who", self.by))

    @property
    def title(self) -> str:
        return self.name.replace("_", " ")
