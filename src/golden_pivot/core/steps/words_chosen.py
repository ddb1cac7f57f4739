"""Words that the spectator chooses, of which only the letters count, and answers that may be true or not."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any

from ..language.arithmetic import letters_in
from ..language.facets import Facet
from ..language.templates import SPECTATOR
from ..search.program import Cells
from .declare import freely, step

if TYPE_CHECKING:
    from ..building import Builder


@step(
    "Spectator {secretly?secretly} {verb=names|thinks of} a word, letters {number:range}",
    family="Choices",
    example="Spectator names a word, letters w from 3 to 12",
    says="{verb} any word, {number} letters long{secretly}.",
    free=freely("You chose any word"),
    by=SPECTATOR,
    wordings=(
        "NAME (any|a) (word|animal|fruit|flower|country|town|city|colour|bird|tree|name) => verb=names; number=3 to 12; who=spectator; score=1",
        "think of (any|a) (word|animal|fruit|flower|country|town|city|colour|bird|tree|name) => verb=thinks of; secretly=yes; number=3 to 12; who=spectator; score=1",
        "NAME (any|a) (word|animal|fruit|flower|country|town|city|colour|bird|name) and spell it [,] deal a card [a|for each|per] letter => verb=names; number=3 to 12; who=spectator; after=spelled; score=4",
    ),
)
def choose_word(b: Builder) -> None:
    """Any word, a name or a sentence, of which only the number of letters counts: it is the new number.

    Every number of letters in the range must work. To spell it, deal so many cards.
    """
    b.choose_number("number", secret=b.flag("secretly"))


@step(
    "Spectator {secretly?secretly} chooses one of {words:words}: {name:name}",
    family="Choices",
    example="Spectator chooses one of “red”, “green”, “orange”: w",
    says="Choose one of {words}{secretly}.",
    free=freely("You chose any of the words"),
    by=SPECTATOR,
)
def choose_of_words(b: Builder) -> None:
    """One of some words, whichever they like; the new number is how many letters it has. To spell it, deal so many cards."""
    words: tuple[str, ...] = b.line.values["words"]
    if len({word.lower() for word in words}) < max(2, len(words)):
        raise b.fault(
            "words", "There is nothing to choose here.", "two words or more, each once", "Write another word."
        )
    chosen = b.choose_unnamed(
        f"the word in line {b.line.number}", f"the word in line {b.line.number}", b.flag("secretly"),
        lambda cells: range(len(words)), lambda cells, option: f"“{words[option]}”",
    )  # fmt: skip
    letters = [letters_in(word) for word in words]
    cell = b.new_number("name", b.phrase("name"), b.flag("secretly"))

    def run(cells: Cells) -> None:
        cells[cell] = letters[chosen(cells)]

    b.act(run)


@step(
    "Spectator {secretly?secretly} answers {name:name}, {how=truly|truly or not}, whether {claim:anything}",
    family="Choices",
    example="Spectator answers a, truly or not, whether their card is in hand",
    facets=(Facet.SPECTATOR_SEES,),
    says="Tell me, {how}, whether {claim}{secretly}.",
    free=lambda values: "You answered as you liked" if values["how"] != "truly" else None,
    by=SPECTATOR,
)
def answer(b: Builder) -> None:
    """A question is answered with yes, which is 1, or no, which is 0; *truly or not* leaves open whether it is a lie.

    Faces that it hangs on must lie open or be known to the spectator. A spelled answer takes 2 cards for *no* and 3 for
    *yes*: deal 2 + a.
    """
    asked, name = b.asked("claim"), b.phrase("name")
    if b.phrase("how") == "truly":
        cell = b.new_number("name", name, b.flag("secretly"))

        def run(cells: Cells) -> None:
            cells[cell] = int(asked.holds(cells))

        b.act(run)
        return

    def options(cells: Sequence[Any]) -> Sequence[int]:
        truth = int(asked.holds(cells))
        return [truth, 1 - truth]

    def say(cells: Sequence[Any], option: int) -> str:
        return ("no", "yes")[option]

    b.choose("name", name, b.flag("secretly"), options, say)
