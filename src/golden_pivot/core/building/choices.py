"""Decisions that are left open."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ..cards import TOKEN
from ..language.expressions import is_settled
from ..language.kinds import CHANCE
from ..language.templates import PERFORMER, SPECTATOR
from ..language.values import NewNumber
from ..search.program import Cell, Cells, Choose, Grouped, Reader
from .places import Place
from .table import Table

MOST_NUMBERS = 10_000
"""among which one is chosen; every one of them is gone through"""
_SYMBOLS = "pqrstuvw"
_LOWERED = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")
Ways = Callable[[Sequence[Any], int], tuple[int, int]]


def _plain(_cells: Sequence[Any], option: int) -> str:
    return str(option)


class Choices(Table):
    def __init__(self, *given: Any) -> None:
        super().__init__(*given)
        self._keys: set[str] = set()
        taken = {
            name
            for line in self.routine.walk()
            for _, type_name, start, end in line.spans
            if type_name in ("name", "names", "range")
            for name in line.text[start:end].replace(",", " ").split()
        }
        self._symbols = (letter for letter in _SYMBOLS if letter not in taken)
        self._chance_cell: int | None = None
        self._kept_numbers: dict[str, int] = {}

    # Numbers

    def new_number(self, slot: str, name: str, secret: bool) -> int:
        """The cell of a number that comes into being here. In a loop it is another number each time round."""
        self.new_name(slot, name, "number")
        given = self.line.values[slot]
        # A loop that gives each time round a name of its own needs no count of the rounds.
        own = isinstance(given, tuple) and len(given) > 1
        label = name if own else name + self.round_text
        cell = self.new_cell(Cell(label, False, symbol=name if own else name + self.round_mark))
        self.scope.numbers[name] = cell
        if not secret:
            self.scope.told.add(cell)
            self.ever_told.add(cell)
            self.learns(name)
        elif not self.performer_acts():
            self.scope.kept_by[cell] = frozenset([self.person])
        self.touches.add(cell)
        return cell

    def kept_number(self, slot: str, name: str) -> int:
        """The cell of a number that the performer keeps in mind: a new one, or one that is set anew by a line of the kind."""
        if name not in self._kept_numbers or self.kinds_of_names.get(name) != "number":
            self._kept_numbers[name] = self.new_number(slot, name, secret=False)
        cell = self._kept_numbers[name]
        self.scope.numbers[name] = cell
        self.scope.changes([cell])
        self.scope.told.add(cell)
        self.touches.add(cell)
        return cell

    def name_of_this_round(self, slot: str) -> str:
        """The name a loop gives the number this time round: the first name the first time, and so on."""
        names = self.line.values[slot]
        if len(names) == 1:
            return str(names[0])
        turn = self.rounds[-1] if self.rounds else 1
        if not self.rounds or turn > len(names):
            raise self.fault(
                slot,
                f"There are {len(names)} names for {turn if self.rounds else 1} times round.",
                "one name, or one for each time round",
                "Give as many names as the line is carried out.",
            )
        return str(names[turn - 1])

    def choose_number(self, slot: str, secret: bool, by_chance: bool = False, weight: str | None = None) -> None:
        """A new number, whatever is liked within its range; or by chance, with the weight in a slot of its own."""
        new: NewNumber = self.line.values[slot]
        low, high = self.evaluate(slot, new.low), self.evaluate(slot, new.high)
        if is_settled(new.low) and is_settled(new.high) and low(self.start) > high(self.start):
            raise self.fault(
                slot,
                f"No number is from {low(self.start)} to {high(self.start)}.",
                "the smaller number first",
                "Exchange the two, or widen the range.",
            )

        if is_settled(new.low) and is_settled(new.high) and high(self.start) - low(self.start) >= MOST_NUMBERS:
            raise self.fault(
                slot,
                f"A choice among {high(self.start) - low(self.start) + 1:,} numbers is more than can be gone through.",
                f"at most {MOST_NUMBERS:,} numbers",
                "Narrow the range.",
                is_limit=True,
            )

        def options(cells: Sequence[Any]) -> Sequence[int]:
            return range(low(cells), high(cells) + 1)

        if not by_chance:
            self.choose(slot, new.name, secret, options)
            return
        cell = self.new_number(slot, new.name, secret)
        heavy = self.number(weight) if weight else lambda cells: 1

        def odds(cells: Sequence[Any], option: int) -> int:
            with_option = list(cells)
            with_option[cell] = option
            return max(0, heavy(with_option))

        self._choice(cell, new.name, new.name, secret, options, _plain, CHANCE, None, odds)

    def choose(
        self,
        slot: str,
        name: str,
        secret: bool,
        options: Callable[[Sequence[Any]], Sequence[int]],
        say: Callable[[Sequence[Any], int], str] = _plain,
    ) -> Reader:
        """A new number with a name, one of the options."""
        cell = self.new_number(slot, name, secret)
        self._choice(cell, name, name, secret, options, say)
        return lambda cells: int(cells[cell])

    def choose_depth(self, place: Place) -> Reader:
        """Nobody learns how deep the cut was: from 0 cards to all but one."""

        def alike(cells: Cells) -> None:
            # Any cut of a heap that has been cut is a cut of the heap before.
            if heap := place.of(cells):
                at = heap.index(max(heap))
                place.put(cells, heap[at:] + heap[:at])

        # A cut of no cards and a cut of all of them leave the same heap: it counts once.
        return self.choose_unnamed(
            f"cut in line {self.line.number}", "cards cut", True,
            lambda cells: range(max(1, len(place.of(cells)))), alike=alike,
        )  # fmt: skip

    def choose_card(self, label: str, place: Place, barred: Sequence[Reader] = ()) -> Reader:
        """A card of a place: its position from 1. Nobody else learns which, and none of the barred ones is taken."""

        def options(cells: Sequence[Any]) -> Sequence[int]:
            heap = place.of(cells)
            bad = {token(cells) for token in barred}
            return [i for i, byte in enumerate(heap, start=1) if byte & TOKEN not in bad]

        def say(cells: Sequence[Any], position: int) -> str:
            return place.layout.at(position, place.name)

        return self.choose_unnamed(label, label, True, options, say, next(self._symbols, "x"))

    def choose_unnamed(
        self,
        key: str,
        label: str,
        secret: bool,
        options: Callable[[Sequence[Any]], Sequence[int]],
        say: Callable[[Sequence[Any], int], str] = _plain,
        symbol: str | None = None,
        odds: Callable[[Sequence[Any], int], int] | None = None,
        alike: Callable[[Cells], None] | None = None,
        grouped: Grouped | None = None,
        is_told: bool | None = None,
        one_by_one: bool = False,
    ) -> Reader:
        """A decision that no line can refer to; `odds` weigh the options where it is taken at random.

        Unless it is secret it says something of where a card is; not where something else `is_told` instead. See Choose for `alike` and `grouped`; no other instruction of the line may depend on the option.
        """
        cell = self.new_cell(Cell(label, False, symbol=symbol and symbol + self.round_mark))
        self._choice(
            cell, key, label, secret, options, say, odds=odds, alike=alike, grouped=grouped, one_by_one=one_by_one
        )  # fmt: skip
        if not secret if is_told is None else is_told:
            self.ever_told.add(cell)
        self.reads.add(cell)
        return lambda cells: int(cells[cell])

    def choose_by_chance(
        self,
        key: str,
        label: str,
        options: Callable[[Sequence[Any]], Sequence[int]],
        say: Callable[[Sequence[Any], int], str],
        ways: Ways | None = None,
        draws: bool = False,
    ) -> Reader:
        """What nobody decides; see Choose for `ways` and `draws`. The line makes use of it at once: it is forgotten directly after."""
        if not self.purpose.forget_unnamed:
            cell = self.new_cell(Cell(label, False))
        else:  # states with fewer cells take less time
            cell = self._chance_cell = self._chance_cell or self.new_cell(Cell("what chance decides", False))
        self._choice(cell, key, label, True, options, say, CHANCE, ways, draws=draws)
        self.reads.add(cell)
        return lambda cells: int(cells[cell])

    def makes_up_for(self, key: str, share: Reader, out_of: Reader) -> None:
        """Every way to have settled one by one what is chosen together here is as likely as another: where the odds are told, so
        much of `out_of` is what a path weighs by that, of one as it has been settled."""
        cell = self.new_cell(Cell(key, False))
        self._choice(
            cell, key, key, False, lambda cells: [0], _plain, odds=lambda cells, option: share(cells), out_of=out_of
        )  # fmt: skip

    @property
    def round_text(self) -> str:
        return "".join(f", time {turn}" for turn in self.rounds)

    @property
    def round_mark(self) -> str:
        """The same behind a letter in a formula: p₃ is the p of the third time."""
        return ",".join(str(turn).translate(_LOWERED) for turn in self.rounds)

    def _choice(
        self, cell: int, key: str, label: str, secret: bool,
        options: Callable[[Sequence[Any]], Sequence[int]], say: Callable[[Sequence[Any], int], str],
        by: str | None = None, ways: Ways | None = None, odds: Callable[[Sequence[Any], int], int] | None = None,
        alike: Callable[[Cells], None] | None = None, grouped: Grouped | None = None, draws: bool = False,
        out_of: Reader | None = None, one_by_one: bool = False,
    ) -> None:  # fmt: skip
        unique = key + self.round_text
        while unique in self._keys:
            unique += "′"
        self._keys.add(unique)
        by = by or (PERFORMER if self.performer_acts() else SPECTATOR)
        self.instructions.append(
            Choose(
                **self.standing({cell}),
                cell=cell,
                key=unique,
                label=label + self.round_text,
                by=by,
                person=self.person,
                secret=secret,
                options=options,
                say=say,
                plain=say is _plain,
                ways=ways,
                odds=odds,
                alike=alike,
                grouped=grouped,
                draws=draws,
                out_of=out_of,
                one_by_one=one_by_one,
            )
        )
