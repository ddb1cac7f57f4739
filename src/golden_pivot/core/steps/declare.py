"""How a kind of step is declared: one frozen record, from which everything else follows."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING

from ..language.claims import can_be_claimed
from ..language.facets import Facet
from ..language.kinds import CHANCE, ENDING, HANDLING, HANDS, PAGE, SETUP, Free, StepKind
from ..language.templates import PERFORMER, compile_template, slot_names

if TYPE_CHECKING:
    from ..building import Builder

Meaning = Callable[["Builder"], None]

__all__ = ["CHANCE", "ENDING", "HANDLING", "PAGE", "REGISTRY", "SETUP", "Facet", "StepKind", "freely", "step"]

REGISTRY: dict[str, StepKind] = {}


def freely(words: str) -> Free:
    """How a choice is spoken of that is always free."""
    return lambda values: words


def step(
    sentence: str,
    *,
    family: str,
    example: str,
    phase: str = HANDLING,
    heard: tuple[tuple[str, str], ...] = (),
    wordings: tuple[str, ...] = (),
    firm: tuple[str, ...] = (),
    does: str = "",
    singly: bool = False,
    shows: bool = False,
    sees: str = "",
    says: str = "",
    yours: tuple[str, ...] = (),
    finds: tuple[str, ...] = (),
    facets: tuple[Facet, ...] = (),
    by: str = PERFORMER,
    free: Free = lambda values: None,
    domains: Mapping[str, range] | None = None,
    is_question: bool = False,
    is_case: bool = False,
) -> Callable[[Meaning], StepKind]:
    """Declare a kind of step. The function below is its meaning, its name the tag, its docstring the manual.

    See language/templates.py for how a sentence is written, steps/slips.py for `heard` and `firm`, variants/explain.py for `does`,
    language/spoken.py for `says` and `sees`, reading/wordings.py for `wordings`; `yours` names slots that you must know although the spectator acts, `finds` slots of cards that are only looked for.
    `facets` say what it is to others (steps/facets.py), `by` who acts where no slot says so, `free` how its choice is spoken of afterwards.
    Raises ValueError for a facet whose slots the sentence does not have.
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
            wordings=wordings,
            firm=frozenset(firm),
            does=does,
            is_handled=phase == HANDLING and family in HANDS and not sentence.endswith(":"),
            singly=singly,
            shows=shows,
            sees=sees,
            says=says,
            yours=frozenset(yours),
            finds=frozenset(finds),
            facets=frozenset(facets),
            by=by,
            free=free,
            domains=domains or {},
            is_question=is_question,
            is_case=is_case,
        )
        if kind.name in REGISTRY:
            raise ValueError(f"two kinds of step are called {kind.name}")
        for facet in kind.facets:
            if missing := set(facet.slots) - slot_names(kind.elements):
                raise ValueError(f"{kind.name} has no slot {', '.join(sorted(missing))}, as {facet.name} wants")
        if taken := slot_names(kind.elements) & {"step", "body"}:
            raise ValueError(f"{kind.name} has a slot called {', '.join(taken)}, which the JSON form has for itself")
        REGISTRY[kind.name] = kind
        if phase == ENDING:
            can_be_claimed(kind)
        return kind

    return register
