"""A compiled routine: instructions that edit the cells of a state.

A **state** is a flat tuple of cells. Cell FAILED holds the failed claims as a bit mask, cell JUMP the index of
the instruction at which this state goes on (None: at the next one); every other cell is a place (`bytes`, top
card first, leftmost first in a row) or a variable (a number, a token, or None while it has no value or is
dead). A meaning edits a list of cells in place; the explorer copies, edits and freezes it again, so that
states stay immutable and equal states merge.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, TypeVar

from ..cards import index_of
from ..layouts import HEAP, Layout
from .faces import FaceClass, FaceStore

State = tuple[Any, ...]
Cells = list[Any]
Reader = Callable[[Sequence[Any]], int]
Grouped = Callable[[Sequence[Any]], Sequence[tuple[int, int]]]
"""state → (an option, how many there are that lead to the same as it)"""

FAILED, JUMP = 0, 1
ANY_FACE, ANY_PLACE = -1, -2
"""among the cells of a line while it is built: the face of whichever named card it turns out to be; every place there is,
also those that come into being further down"""
NO_ENDING = 1
"""bit of cell FAILED that is set until an ending has been reached; bit i + 1 is claim i"""
END = 10**9
"""where a state goes on that has come to an ending in a block"""


@dataclass(frozen=True)
class Cell:
    name: str
    is_place: bool
    told: bool = False
    """a number that the performer learns, now or later"""
    layout: Layout = HEAP
    """how the cards of a place lie"""
    is_card: bool = False
    """a card that is named on the way: the value is its token"""
    symbol: str | None = None
    """what the number is called in a formula"""
    say: Callable[[int], str] | None = None
    """what it says in words that complete '(name) is …', where it is no plain number"""


@dataclass(frozen=True)
class OneSpot:
    """A spot of a place that is the same on every path where as many cards lie there."""

    place: int
    index: Callable[[Sequence[Any], int], int]
    """(state, number of cards there) → index from 0; raises Impossible where no card lies at the spot"""


@dataclass(frozen=True)
class Instruction:
    """What every instruction knows: where it stands and which cells it depends on."""

    line: int
    """line of the text, from 1"""
    round: tuple[int, ...]
    """which time round, from 1, one number for each loop around the line, outermost first"""
    reads: frozenset[int]
    """cells whose content matters to it"""
    touches: frozenset[int]
    """cells it may change"""
    looks: frozenset[int] = field(default=frozenset(), kw_only=True)
    """places in which it matters to it which card is which; of others only how many lie there"""
    bags: frozenset[int] = field(default=frozenset(), kw_only=True)
    """of these, places whose cards may lie in any order, but for those at its spots: it is about which they are"""
    spots: tuple[OneSpot, ...] = field(default=(), kw_only=True)
    """where it looks at a card, or finds out what it is; of the same places nothing else moves"""
    goes_through: tuple[int, int] | None = field(default=None, kw_only=True)
    """(place, index from 0) it does nothing but to look at the card there, when those above it have been looked at"""
    reads_faces: frozenset[int] = field(default=frozenset(), kw_only=True)
    """places in which the faces of cards matter that were unknown before they were seen"""


@dataclass(frozen=True)
class Builds:
    """Cards come on top of a place that begins empty, until none is to come; nothing in between asks what lies there."""

    place: int
    to_come: Reader


@dataclass(frozen=True)
class Groups:
    """A claim is about a heap, so many cards at a time: it holds where it holds of each group, in whatever order it lies,
    and never of a heap that is not made of whole groups."""

    place: int
    size: int
    holds: Callable[[Sequence[Any], bytes], bool]
    """of one group, top card first; of indifferent cards that are not followed it does not hold"""


@dataclass(frozen=True)
class Takes:
    """So many cards come off the top of a place."""

    place: int
    number: Reader
    reads: frozenset[int]
    """cells that the number is about"""


@dataclass(frozen=True)
class Act(Instruction):
    run: Callable[[Cells], None]
    """edits the cells; raises Impossible"""
    handled: Reader
    """how many cards pass through the hands, for the state before"""
    fills: frozenset[int] | None = None
    """places that cards come to from elsewhere; None: any of those it touches"""
    sifts: bool = False
    """it may raise NoSuchPath: what is settled before it may be of a path that is none"""
    reckons: bool = False
    """it only reckons one number from others, and cannot fail"""
    stacks: tuple[int, int, bool] | None = None
    """it does nothing but to put the whole of a place (cell) on another, or under it where that is False"""
    builds: Builds | None = None
    """it does nothing else that matters"""
    hands_over: tuple[int, int] | None = None
    """it puts the whole of a place (cell) on another that is empty, and does nothing else"""
    splits: tuple[Takes, ...] | None = None
    """what it takes off which place: apart from that it moves whole places, so that which cards it brings where follows from
    which there are in each part; None: anything may make a difference"""


@dataclass(frozen=True)
class Choose(Instruction):
    cell: int
    key: str
    """names this choice within the routine; the same on every path"""
    label: str
    by: str
    secret: bool
    options: Callable[[Sequence[Any]], Sequence[int]]
    """the values it may take in this state, in the order in which counterexamples prefer them"""
    say: Callable[[Sequence[Any], int], str]
    """an option in words that complete '(label) is …'"""
    plain: bool = True
    """the options are numbers that speak for themselves"""
    ways: Callable[[Sequence[Any], int], tuple[int, int]] | None = None
    """in how many ways an option can come about, as a fraction (numerator, denominator) of the ways so far; None: one"""
    odds: Callable[[Sequence[Any], int], int] | None = None
    """how heavy an option weighs where chance decides; None: as many as its ways"""
    out_of: Reader | None = None
    """what all options weigh together, where it is another number than their sum: it makes up for choices made before"""
    one_by_one: bool = False
    """it settles for one thing whether it is among those that are chosen together further down"""
    alike: Callable[[Cells], None] | None = None
    """turns a state into the one that stands for all from which the options lead to the same states as from it"""
    grouped: Grouped | None = None
    """of a state: of options that lead to the same the first stands for all, with how many there are"""
    draws: bool = False
    """it settles what an unknown card is: the options are classes, in as many ways as there are cards left of each"""
    person: int = 1
    """which spectator decides, where there are several"""

    def shares(self, state: Sequence[Any], options: Sequence[int]) -> list[int]:
        """How heavy each option weighs where chance decides."""
        if self.odds is not None:
            return [self.odds(state, option) for option in options]
        return [self.ways(state, option)[0] if self.ways else 1 for option in options]

    def whole(self, state: Sequence[Any], shares: Sequence[int]) -> int:
        """What each of the shares is a part of."""
        return self.out_of(state) if self.out_of else sum(shares)


@dataclass(frozen=True)
class Check(Instruction):
    claim: int
    """index of the claim, from 0"""
    holds: Callable[[Sequence[Any]], bool]
    """raises Impossible where there is no such card"""
    explain: Callable[[Sequence[Any]], str]
    """why it does not hold in this state, as a clause; needs a program that forgets nothing"""
    reached: int | None = None
    """cell in which is noted that this path has come by; None where every path does that comes to its end"""
    groups: Groups | None = None

    def settle(self, cells: Cells) -> bool:
        """Notes in the state whether the claim holds, and that this path has come to it."""
        cells[FAILED] &= ~NO_ENDING
        if self.reached is not None:
            cells[self.reached] |= 1 << self.claim
        if self.holds(cells):
            return True
        cells[FAILED] |= 2 << self.claim
        return False


@dataclass(frozen=True)
class Branch(Instruction):
    holds: Callable[[Sequence[Any]], bool]
    target: int
    """where states go on for which it does not hold"""


@dataclass(frozen=True)
class Leap(Instruction):
    target: int


@dataclass(frozen=True)
class Closure(Instruction):
    """One of several moves, as often as one likes, or none of them.

    The moves are the instructions that follow, in consecutive ranges; `ends` has the index behind each. At the
    last of them stands a leap to the next instruction, so that no two closures end at the same place.
    """

    ends: tuple[int, ...]
    says: tuple[str, ...]
    """the moves in words"""
    by: str

    def moves(self, index: int) -> Sequence[tuple[int, int]]:
        """(first, index behind the last) of each move, for the closure at this index."""
        return list(zip((index + 1, *self.ends[:-1]), self.ends, strict=True))


@dataclass(frozen=True)
class Loop(Instruction):
    """The instructions up to `end`, again and again, until each path has left by a jump.

    At `end` stands a leap to the next instruction; whoever jumps there or further has left the loop.
    """

    end: int
    measure: Callable[[Sequence[Any]], int] | None
    """gets smaller every time round, so that paths with equal measures meet; None: it is bounded by MOST_TURNS"""


AnyInstruction = Act | Choose | Check | Branch | Leap | Closure | Loop
Step = TypeVar("Step", bound=Instruction)


def changed(step: Step, **fields: Any) -> Step:
    """The instruction with other values in some fields. As dataclasses.replace, which sets every field anew: programs are
    built with every key, and a pass may change each of their instructions."""
    assert fields.keys() <= step.__dict__.keys(), fields
    new = object.__new__(type(step))
    new.__dict__.update(step.__dict__, **fields)
    return new


MOST_TURNS = 1000
"""times round of a loop that does not get smaller, before its paths are given up"""


@dataclass(frozen=True)
class Dead:
    """What nobody asks for any more at some point."""

    cells: tuple[int, ...] = ()
    """emptied"""
    cards: tuple[int, ...] = ()
    """places of which only the number of cards still matters, and where the one is that is followed to the end"""
    faces: tuple[int, ...] = ()
    """places in which only the cards that have names still matter"""
    counts: bool = False
    """which faces have been seen still matters, so that it is kept of what is forgotten"""

    def __or__(self, other: Dead) -> Dead:
        cells, cards, faces = {*self.cells, *other.cells}, {*self.cards, *other.cards}, {*self.faces, *other.faces}
        return Dead(tuple(sorted(cells)), tuple(sorted(cards)), tuple(sorted(faces)), self.counts or other.counts)

    def __bool__(self) -> bool:
        return bool(self.cells or self.cards or self.faces)


@dataclass(frozen=True)
class ClaimLine:
    line: int
    text: str
    marked: bool = False
    """not every path may come to it: cell `Program.reached` has the bit of those that do"""
    throughout: bool = False
    """it is claimed of the whole way, whatever a path ends in"""


@dataclass(frozen=True)
class Wanted:
    """What must be kept of a state, and of what is left how much may be forgotten; what a proof forgets follows from it."""

    at_end: frozenset[int] = frozenset()
    """cells that matter at the end; a place by −1 − its cell where it matters which card lies there"""
    may_be_dropped: frozenset[int] = frozenset()
    """cells that are given up once nobody reads them"""
    may_lose_faces: frozenset[int] = frozenset()
    """places whose cards become like any other once nobody looks at them"""


@dataclass(frozen=True)
class Program:
    cells: tuple[Cell, ...]
    start: State
    instructions: tuple[AnyInstruction, ...]
    tokens: Mapping[str, int]
    """card name → token, for cards named before the routine begins"""
    card_cells: Mapping[str, int]
    """card name → the cell that has its token once it is named"""
    own_tokens: Mapping[str, int]
    """for cards named on the way, the token of one that had none before"""
    fixed_faces: Mapping[int, int]
    """token of a real card of the set-up that is followed → token of its face"""
    face_cells: Mapping[str, int]
    """card name → the cell that has the token of its face, where it was unknown"""
    follows_faces: bool
    target: str | None
    """the card whose landing is asked for"""
    named: tuple[str, ...]
    """cards that have names, those of the set-up first"""
    target_line: int | None
    """line that names it, where it is placed in the set-up"""
    claims: tuple[ClaimLine, ...]
    covers_every_order: bool
    covers: str
    """which orders of the pack: `every order of the other 51 cards`"""
    odd_backs: Mapping[int, str] = field(default_factory=dict)
    """token → name of the cards with another back"""
    assumed: tuple[str, ...] = ()
    face_classes: tuple[FaceClass, ...] = ()
    """what is told apart of unknown cards; options of a choice of a face are indices of these, and behind them
    in the same order *not that class*"""
    faces: FaceStore | None = None
    """where faces of unknown cards are kept once they have been seen; None where nobody looks at any"""
    tells: Mapping[int, int] = field(default_factory=dict)
    """claim that what is seen tells something → the cell of (what is seen, what it is to tell)"""
    again: int | None = None
    """cell that is 1 on paths that start again"""
    odds: tuple[tuple[int, str, int], ...] = ()
    """(line, text, cell) of numbers whose odds are asked for"""
    ending: int | None = None
    """cell that has the line of the ending a path comes to, where there are several"""
    remembered: tuple[tuple[str, int, tuple[int, ...]], ...] = ()
    """(name, line at which the performer learns it, lines of the performer's that need it)"""
    reached: int | None = None
    """cell that has a bit for each claim a path has come to; None where all come to all"""
    keeps_target: bool = False
    """where the followed card lies at the end is asked for"""
    interchangeable: tuple[bytes, ...] = ()
    """tokens of each pair of mates (one that both share, or two), where no line tells one pair from another"""
    equally_likely: bool = False
    """the spectator's choices are taken by chance"""
    wanted: Wanted = Wanted()
    kills: tuple[Dead, ...] = ()
    """beside each instruction, what is dead after it"""
    kills_at: Mapping[int, Dead] = field(default_factory=dict)
    """target of a branch → what is dead there"""

    @property
    def is_unlimited(self) -> bool:
        """Something may be repeated without end, so that paths cannot be counted."""
        return any(isinstance(step, Closure) for step in self.instructions)

    @property
    def cards_in_play(self) -> int:
        return sum(len(self.start[index]) for index, _ in self.places())

    def choices(self) -> tuple[Choose, ...]:
        return tuple(step for step in self.instructions if isinstance(step, Choose))

    def places(self) -> tuple[tuple[int, str], ...]:
        return self._places

    @cached_property
    def _places(self) -> tuple[tuple[int, str], ...]:
        return tuple((index, cell.name) for index, cell in enumerate(self.cells) if cell.is_place)

    @cached_property
    def layouts(self) -> Mapping[str, Layout]:
        """How the cards of each place lie, by its name."""
        return {cell.name: cell.layout for cell in self.cells if cell.is_place}

    def token_of(self, state: Sequence[Any], name: str) -> int | None:
        """The token of a named card in this state; None while no card has this name."""
        return state[self.card_cells[name]] if name in self.card_cells else self.tokens.get(name)

    def where_is(self, state: Sequence[Any], name: str | None) -> tuple[str, int] | None:
        """(place, position from 1, from the top or the left) of a named card."""
        token = self.token_of(state, name) if name else None
        if token is not None:
            for index, place in self.places():
                if (at := index_of(state[index], token)) >= 0:
                    return place, at + 1
        return None
