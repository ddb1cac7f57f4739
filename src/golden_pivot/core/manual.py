"""docs/language.md, written from the declarations."""

from __future__ import annotations

import re
from itertools import groupby

from .building.choices import MOST_NUMBERS
from .building.lines import MAX_INSTRUCTIONS, MAX_ROUNDS
from .building.table import MOST_GATHERED_FREELY, MOST_PILES
from .cards import MAX_CARDS
from .language.expressions import MAX_DEPTH, MAX_NUMBER
from .language.parser import read_routine
from .language.routine import MAX_COLUMNS, MAX_LINES, MAX_NESTING
from .language.slots import SLOT_TYPES
from .language.spoken import request_of
from .language.templates import Cards, Element, Flag, Optional, Person, Phrases, Slot, Verb, Who
from .language.words import RESERVED
from .search.program import MOST_TURNS
from .steps import REGISTRY, StepKind
from .steps.cards_chosen import MOST_TAKEN

_RESERVED = ", ".join(f"*{word}*" for word in sorted(RESERVED))

_HEAD = f"""# The routine language

*Written by `make generated` from the declarations of the steps; do not edit it by hand.*

A routine is plain text, one sentence a line. A line that begins with *Spectator* is something the spectator
does, *Spectator 2* where there are several; any other is yours. Lines under a line that ends with a colon are indented and belong to it. `#` begins a
remark. A line in quotation marks is patter for the line above; under an *If* it may stand alone, for what is said
in that case. A `?` is a blank, a value still to be settled: a number, a position, a heap, a suit, the value or the suit of a card (*the ? of
clubs*, *the king of ?*), a colour or sort, or in quotation marks a word (“?”), of which you say which are to be tried.

Positions count from 1 at the top of a heap as it lies, unless a line says *from the bottom*; in a row they count
from the left, unless a line says *from the right*. **Deal** reverses the order of the cards; **count … each under
the last**, **cut** and **put** keep it; **turn over … as a block** reverses it and flips every face.

A place is a name in small letters: deck, table, hand, pocket, aside, pile 2. It is there as soon as cards first go
to it. *pile p* is the pile with the number p, whatever p is. A card is a name in capitals (FORCE), a card of the
pack (queen of hearts), or *their card*.

A card is pointed at by where it lies: *the top card of deck*, *the 5th card of hand*, *the nth card of deck* (n is a number),
*the card at position n + 1 from the bottom of deck*, *the face of deck* (its bottom card), *the last card dealt*, *the next card*
(the one after the count), *the 3rd card back from the last dealt* (the last dealt is the 1st), *the nth card back from the last dealt*;
in a grid *the card at row 2 column 3 of grid*; round and round *the card 3 on from position n of ring*, *the card 3 before position n of ring*.

Whatever an ending can claim of a path can be asked in the middle: *If FORCE is in hand:*, *Make sure that size of hand is even*,
*As long as FORCE is in deck:*; several things at once with *and* between all of them, or with *or* between all of them.

Cards are spoken of by their sort: *red*, *black*; *a club*, *clubs*; *an ace*, *aces*; *a court card*, *court cards*; *face up*,
*face-up cards*. Where somebody goes by a face that is not named, the card must lie face up; at the end it is turned up.

A number chosen by the spectator is told to you unless its line says *secretly*. Your own lines may use only
what you have been told, and name only cards whose faces you know; a card that lies alone, or shows another side than
all with it, can be looked for all the same. Numbers and cards that come into being in one case only are not known behind it.

The piles are those dealt or laid down last; where none was, all heaps called *pile 1*, *pile 2* and so on. Only piles that
have cards are pointed to and gathered. Some path must come to a claim; where not every path does, the verdict says on how
many it is, and names the lines that no path comes to.

## Limits

| what | at most |
| --- | --- |
| lines, of characters each | {MAX_LINES}, {MAX_COLUMNS} |
| blocks inside each other | {MAX_NESTING} |
| a number worked out | {MAX_DEPTH} steps, {MAX_NUMBER:,} |
| single actions a routine comes to | {MAX_INSTRUCTIONS:,} |
| times round of all its repetitions together | {MAX_ROUNDS:,} |
| numbers to choose among in one line | {MOST_NUMBERS:,} |
| cards in play | {MAX_CARDS} |
| piles | {MOST_PILES} |
| places or cards *in any order* in one line | {MOST_GATHERED_FREELY}; more in a stated order |
| cards taken from anywhere in one line | {MOST_TAKEN} |
| times round of a repetition that does not get smaller | {MOST_TURNS:,} |

Words that belong to the sentences cannot be names: {_RESERVED}.

## Numbers

Where a sentence needs a number it takes figures, a name, or a sum of them:

| written | means |
| --- | --- |
| `12`, `twelve`, `n` | the number itself, up to twelve in words as well; the number called n |
| `n + 1`, `9 - n`, `2 * n`, `(a + b) * 2` | sum, difference, product; also `n plus 1`, `n minus 1`, `twice n` |
| `2 ^ n` | 2 with itself so many times, 1 for none |
| `half of n rounded up`, `half of n rounded down` | half, as a whole number |
| `remainder of n divided by 3` | what is left over; in a sum it comes last, or in brackets |
| `quotient of n divided by 3` | how many times it goes in, as a whole number; in a sum it comes last, or in brackets |
| `digit sum of n` | the figures of n added together; in a sum it comes last, or in brackets: `(digit sum of n) + 1` |
| `digit root of n` | the digit sum of the digit sum and so on, until one figure is left: nines cast out |
| `tens digit of n`, `units digit of n`, `reversal of n` | the last figure but one, the last one, the figures backwards |
| `min(a, b)`, `max(a, b)` | the smaller, the larger |
| `letters of “lantern”` | letters of a word or of several; spaces and marks do not count |
| `size of table` | how many cards lie there |
| `value of queen of hearts`, `suit of their card` | ace 1, jack 11, queen 12, king 13; clubs 1, diamonds 2, hearts 3, spades 4 |
| `letters of value of their card`, `letters of suit of …` | letters of *queen*; of *hearts*, in the plural |
| `(value of the top card of deck) + 1` | the same of a card by where it lies, face up; in a sum it stands in brackets |
| `number of piles` | how many piles there are |
| `number of red cards of hand`, `number of face-up cards of table` | how many cards of a sort lie there |

A card that was not placed can be anything that is left of the pack; the proof covers all of it. Your own lines may use
the value of such a card only when you have looked at it or when it was named to you; of a card by where it lies, when
it lies face up.

A `?` may stand for anything in a sentence, for the bench to fill: *Place FORCE ?th*, *Put table ? deck*.

## Sentences
"""


def _shown(elements: tuple[Element, ...]) -> str:
    """The sentence as a reader of the manual sees it: slots in italics, what may be left out in brackets."""
    pieces: list[str] = []
    for element in elements:
        match element:
            case Optional(inside):
                pieces.append(f"[{_shown(inside)}]")
            case Who():
                pieces.append("[Spectator]")
            case Person():
                pieces.append("Spectator")
            case Verb(stem, ending):
                pieces.append(f"{stem}({ending})")
            case Cards():
                pieces.append("cards")
            case Flag(_, words):
                pieces.append(f"[{' '.join(words)}]")
            case Phrases(options, _):
                pieces.append(" | ".join(" ".join(option) for option in options))
            case Slot(_, type_name):
                pieces.append(f"*{SLOT_TYPES[type_name].label}*")
    return re.sub(r" (?=[,:;])|(?<=\[) ", "", " ".join(pieces)).replace(" [,", "[,")


def _section(kind: StepKind) -> str:
    shown = _shown(kind.elements)
    notes = f"\n\n{kind.notes}" if kind.notes else ""
    heard = " · ".join(dict.fromkeys(what for what, _ in kind.heard))
    slips = f"\nMay be taken for something else: {heard}.\n" if heard else ""
    said = f"\nOne may say: {_said(kind)}\n" if kind.says else ""
    return f"#### {kind.title.capitalize()}\n\n{shown}\n\n{kind.summary}{notes}\n\n    {kind.example}\n{said}{slips}"


def _said(kind: StepKind) -> str:
    """How the example can be asked for."""
    (line,) = read_routine(kind.example).lines
    return f"“{request_of(line, frozenset())}”"


def language_reference() -> str:
    """The whole manual as Markdown."""
    families = groupby(REGISTRY.values(), key=lambda kind: kind.family)
    body = "\n".join(f"### {family}\n\n" + "\n".join(map(_section, kinds)) for family, kinds in families)
    slots = "\n".join(f"- *{slot.label}*" for slot in SLOT_TYPES.values())
    return f"{_HEAD}\n{body}\n## What may stand in a sentence\n\n{slots}\n"
