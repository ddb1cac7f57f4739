"""How a kind of step is declared: one frozen record, from which everything else follows."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from ..language.templates import PERFORMER, SPECTATOR, Element, compile_template

if TYPE_CHECKING:
    from ..building import Builder

Meaning = Callable[["Builder"], None]

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

    def actor(self, values: Mapping[str, Any]) -> str:
        """Who acts in such a line: the spectator, chance, or the performer, where nobody else is named."""
        if "who" in values:
            return str(values["who"])
        subject = self.sentence.split(maxsplit=1)[0].lower()
        return subject if subject in (SPECTATOR, CHANCE) else PERFORMER

    @property
    def is_question(self) -> bool:
        """It asks for odds; nobody does anything."""
        return self.sentence.startswith("Odds")

    @property
    def is_case(self) -> bool:
        """Its lines are carried out in one case only."""
        return self.sentence.startswith(("If ", "Otherwise"))

    @property
    def title(self) -> str:
        return self.name.replace("_", " ")


REGISTRY: dict[str, StepKind] = {}


def step(
    sentence: str,
    *,
    family: str,
    example: str,
    phase: str = HANDLING,
    heard: tuple[tuple[str, str], ...] = (),
    firm: tuple[str, ...] = (),
    does: str = "",
    singly: bool = False,
    shows: bool = False,
    sees: str = "",
    says: str = "",
    yours: tuple[str, ...] = (),
    finds: tuple[str, ...] = (),
) -> Callable[[Meaning], StepKind]:
    """Declare a kind of step. The function below is its meaning, its name the tag, its docstring the manual.

    See language/templates.py for how a sentence is written, steps/slips.py for `heard` and `firm`, variants/explain.py for `does`,
    language/spoken.py for `says` and `sees`; `yours` names slots that you must know although the spectator acts, `finds` slots of cards that are only looked for.
    """

    def register(meaning: Meaning) -> StepKind:
        summary, _, notes = inspect.cleandoc(meaning.__doc__ or "").partition("\n\n")
        kind = StepKind(
            name=meaning.__name__,
            family=family,
            phase=phase,
            sentence=sentence,
            elements=compile_template(sentence),
            summary=" ".join(summary.split()),
            notes=notes,
            example=example,
            means=meaning,
            opens_block=sentence.endswith(":"),
            bold=phase == ENDING,
            heard=heard,
            firm=frozenset(firm),
            does=does,
            is_handled=phase == HANDLING and family in HANDS and not sentence.endswith(":"),
            singly=singly,
            shows=shows,
            sees=sees,
            says=says,
            yours=frozenset(yours),
            finds=frozenset(finds),
        )
        if kind.name in REGISTRY:
            raise ValueError(f"two kinds of step are called {kind.name}")
        REGISTRY[kind.name] = kind
        return kind

    return register
