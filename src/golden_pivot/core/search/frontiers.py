"""All paths of a program at once, stage by stage: the one loop that search, odds, strands and blanks drive.

Equal states merge; what merged paths weigh is the algebra's affair. A **frontier** is the layer behind a stage. Whoever
goes through the frontiers may put another layer in its place before asking for the next one.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, field, replace
from typing import Any

from ..budget import CHECK_EVERY, Budget
from ..faults import Impossible, NoSuchPath
from .abstraction import forgets
from .algebra import Algebra, Layer
from .exchangeable import TRACE, Exchangeable, NotExchangeable, draws_one_card
from .program import JUMP, Act, Cells, Choose, Closure, Grouped, Loop, Program, State
from .semantics import Run, begin_turn, carrying_out, measured, options_of
from .stages import Cut, Stage, stages


@dataclass(frozen=True)
class Stuck:
    """Paths that could not go on: the line, why, and the state they were in."""

    line: int
    reason: str
    state: State


@dataclass
class Exploration:
    ends: Layer = field(default_factory=dict)
    stuck: dict[Stuck, Any] = field(default_factory=dict)
    again: Layer = field(default_factory=dict)
    """paths that start again"""
    widest: int = 1
    transitions: int = 0


@dataclass
class Frontier:
    """The layer behind a stage. A state that went another way has in cell JUMP where it goes on."""

    stage: Stage
    before: Layer
    layer: Layer


def frontiers(
    program: Program, budget: Budget, algebra: Algebra, found: Exploration, cut: Cut = Cut.NOWHERE
) -> Iterator[Frontier]:
    """The frontier behind every stage, in order; stuck paths and transitions are added to `found`.

    `cut`: where stages end besides where they must. Cost: one transition for each state and option of a
    layer. Raises OutOfBudget and Cancelled.
    """
    search = _Search(program, budget, algebra, found)
    layer: Layer = {program.start: algebra.one}
    for stage in stages(program, cut):
        frontier = Frontier(stage, layer, search.beyond(stage, layer))
        found.widest = max(found.widest, len(frontier.layer))
        yield frontier
        layer = frontier.layer


def goes_on(state: State) -> State:
    """The state once it has come to where it leapt."""
    return (*state[:JUMP], None, *state[JUMP + 1 :])


@dataclass(frozen=True)
class _Search:
    program: Program
    budget: Budget
    algebra: Algebra
    found: Exploration

    def beyond(self, stage: Stage, layer: Layer) -> Layer:
        """The layer behind a stage."""
        if isinstance(stage.closure, Closure):
            return self._closed(stage, layer)
        if isinstance(stage.closure, Loop):
            return self._looped(stage, stage.closure, layer)
        return self._one_pass(stage, layer)

    def _stop(self, line: int, obstacle: Impossible, state: State, weight: Any) -> None:
        self.algebra.add(self.found.stuck, Stuck(line, obstacle.reason, state), weight)

    # One choice at most

    def _one_pass(self, stage: Stage, layer: Layer) -> Layer:
        if self._asks_only_where_it_leads(stage) and not self.algebra.chosen:
            layer = self._met(stage, layer)
        ways_on, total = self._ways_on(stage), [0]
        runs = self._runs(stage, total)
        carry, forget = _one_after_the_other(runs), forgets(self.program, stage.dead)
        forget_beyond = {target: forgets(self.program, dead) for target, dead in stage.beyond.items()}
        merge, handled, budget = self.algebra.merge, self.algebra.handled, self.budget
        line, cell = stage.first.line, stage.choose.cell if stage.choose else None
        start, forked = stage.start, bool(self.program.kills_at)
        after: Layer = {}
        if forked:  # who went another way meets the others further on
            after = {state: weight for state, weight in layer.items() if (state[JUMP] or 0) > start}
        many, done, next_look = len(after), 0, CHECK_EVERY
        for state, weight in layer.items():
            if forked and (goes_on_at := state[JUMP]) is not None:
                if goes_on_at > start:
                    continue
                state = goes_on(state)
            try:
                ways = ways_on(state, weight)
            except Impossible as obstacle:
                self._stop(line, obstacle, state, weight)
                continue
            for option, reached in ways:
                done += 1
                if done == next_look:
                    next_look += CHECK_EVERY
                    budget.count(self.found.transitions + done, line)
                    budget.look(len(after), line)
                cells = list(state)
                if cell is not None:
                    cells[cell] = option
                total[0] = 0
                try:
                    leaves_for = carry(cells)
                except NoSuchPath:
                    continue
                except Impossible as obstacle:
                    if handled:
                        reached = handled(reached, total[0])
                    self._stop(_line_of(stage, runs, state, option), obstacle, tuple(cells), reached)
                    continue
                if handled:
                    reached = handled(reached, total[0])
                if leaves_for:
                    cells[JUMP] = leaves_for
                if forgetting := forget_beyond[leaves_for] if leaves_for else forget:
                    forgetting(cells)
                # A long tuple takes its time to hash: once is enough for a state that is new.
                known = after.setdefault(key := tuple(cells), reached)
                if len(after) > many:
                    many += 1
                else:
                    after[key] = merge(known, reached)
        self.found.transitions += done
        budget.count(self.found.transitions, line)
        budget.look(len(after), line)
        return after

    def _ways_on(self, stage: Stage) -> Callable[[State, Any], Sequence[tuple[Any, Any]]]:
        """(state, weight) → (option, weight with it) for each option of the stage's choice; raises Impossible for none."""
        choose, algebra = stage.choose, self.algebra
        if choose is None:
            return lambda state, weight: ((None, weight),)
        ways = choose.ways if algebra.times else None

        if choose.grouped and self._asks_only_where_it_leads(stage):
            return self._ways_of_groups(choose, choose.grouped)
        if not (algebra.share or algebra.chosen or ways):
            return lambda state, weight: [(option, weight) for option in options_of(choose, state)]

        if ways and algebra.times and not (algebra.share or algebra.chosen):
            times = algebra.times
            return lambda state, weight: [
                (option, times(weight, *ways(state, option))) for option in options_of(choose, state)
            ]

        def ways_on(state: State, weight: Any) -> list[tuple[Any, Any]]:
            options = options_of(choose, state)
            shares = choose.shares(state, list(options)) if algebra.share else []
            whole, found = choose.whole(state, shares), []
            for index, option in enumerate(options):
                reached = weight
                if algebra.chosen:
                    reached = algebra.chosen(reached, index, option)
                if algebra.share:
                    if not shares[index]:
                        continue
                    reached = algebra.share(reached, shares[index], whole)
                if ways and algebra.times:
                    reached = algebra.times(reached, *ways(state, option))
                found.append((option, reached))
            return found

        return ways_on

    def _ways_of_groups(self, choose: Choose, grouped: Grouped) -> Callable[[State, Any], list[tuple[Any, Any]]]:
        """The same for options of which some lead to the same.

        The first of these is on the least path where any of them is.
        """
        share, times, chosen = self.algebra.share, self.algebra.times, self.algebra.chosen

        def least_ways_on(state: State, weight: Any) -> list[tuple[Any, Any]]:
            assert chosen
            options, found = options_of(choose, state), []
            for option, many in grouped(state):
                reached = chosen(weight, options.index(option), option)
                found.append((option, times(reached, many, 1) if times else reached))
            return found

        def ways_on(state: State, weight: Any) -> list[tuple[Any, Any]]:
            groups = grouped(state)
            whole = sum(many for _, many in groups)
            if share:
                return [(option, share(weight, many, whole)) for option, many in groups]
            return [(option, times(weight, many, 1) if times else weight) for option, many in groups]

        return least_ways_on if chosen else ways_on

    def _runs(self, stage: Stage, total: list[int]) -> list[Run]:
        """What carries out the instructions of the stage; cards handled are added to `total`, where that matters."""

        def counting(step: Act, run: Run) -> Run:
            def run_and_count(cells: Cells) -> int | None:
                total[0] += step.handled(cells)
                return run(cells)

            return run_and_count

        runs = [(step, carrying_out(step)) for step in stage.then]
        return [counting(step, run) if self.algebra.handled and isinstance(step, Act) else run for step, run in runs]

    def _asks_only_where_it_leads(self, stage: Stage) -> bool:
        """Whether states may be taken as one from which the options of the stage lead to the same states.

        Not where it matters which option was taken: to the algebra, to another step of the stage, or later. Where the first of
        several options that lead to the same will do, states stay as they are.
        """
        choose = stage.choose
        algebra = self.algebra
        if choose is None or choose.alike is None or choose.odds:
            return False
        if (algebra.chosen or algebra.handled) and not algebra.first_will_do:
            return False
        forgotten = all(choose.cell in dead.cells for dead in (stage.dead, *stage.beyond.values()))
        return forgotten and sum(choose.cell in step.reads for step in stage.then) <= 1

    def _met(self, stage: Stage, layer: Layer) -> Layer:
        """States that lead to the same, as one."""
        assert stage.choose and stage.choose.alike
        met: Layer = {}
        for state, weight in layer.items():
            if state[JUMP] is None or state[JUMP] <= stage.start:
                cells = list(state)
                # Where the choice cannot be made the path gets stuck, as it does when its options are asked for.
                with suppress(Impossible):
                    stage.choose.alike(cells)
                state = tuple(cells)
            self.algebra.add(met, state, weight)
        return met

    # Any number of rounds

    def _closed(self, stage: Stage, layer: Layer) -> Layer:
        """Everything that any number of rounds can lead to: rounds are added until none brings anything new."""
        algebra = self.algebra
        elsewhere, reached = self._parted(stage, layer)
        fresh = dict(reached)
        while fresh:
            found = self._one_round(stage, fresh)
            fresh = {}
            for state, weight in found.items():
                if state[JUMP] is not None:  # it has left for good
                    elsewhere[state] = algebra.again(elsewhere[state], weight) if state in elsewhere else weight
                    continue
                known = reached.get(state)
                kept = weight if known is None else algebra.again(known, weight)
                if known is None or kept != known:
                    reached[state] = fresh[state] = kept
            self.budget.look(len(reached), stage.first.line)
        after = elsewhere
        forget = forgets(self.program, self.program.kills_at[stage.moves[-1][0]])
        for state, weight in reached.items():
            cells = list(state)
            if forget:
                forget(cells)
            algebra.add(after, tuple(cells), algebra.chosen(weight, 0, 0) if algebra.chosen else weight)
        self.found.widest = max(self.found.widest, len(reached))
        return after

    def _parted(self, stage: Stage, layer: Layer) -> tuple[Layer, Layer]:
        """(states that go on behind the stage, states that come to it)"""
        elsewhere: Layer = {}
        here: Layer = {}
        for state, weight in layer.items():
            if state[JUMP] is not None and state[JUMP] > stage.start:
                elsewhere[state] = weight
            else:
                self.algebra.add(here, goes_on(state), weight)
        return elsewhere, here

    def _one_round(self, stage: Stage, fresh: Layer) -> Layer:
        """Where every move leads from these states."""
        algebra = self.algebra
        found: Layer = {}
        for number, (behind, passes) in enumerate(stage.moves, start=1):
            moved: Layer = {}
            for state, weight in fresh.items():
                moved[state] = algebra.chosen(algebra.rounds(weight), number, number) if algebra.chosen else weight
            for one in passes:
                moved = self.beyond(one, moved)
            for state, weight in moved.items():
                algebra.add(found, goes_on(state) if state[JUMP] == behind else state, weight)
        return found

    # As long as something holds

    def _looped(self, stage: Stage, loop: Loop, layer: Layer) -> Layer:
        """Every path, time after time round, until it has left.

        With a measure the paths that are furthest from the end go first, so that paths meet which come to the same
        in different numbers of rounds.
        """
        ((behind, passes),) = stage.moves
        waiting: dict[int, Layer] = {}
        turn = 0

        def wait(state: State, weight: Any, before: int | None) -> None:
            try:
                rank = measured(loop, state, before)
            except Impossible as obstacle:
                self._stop(loop.line, obstacle, state, weight)
                return
            self.algebra.add(waiting.setdefault(-turn if rank is None else rank, {}), state, weight)

        gone, here = self._parted(stage, layer)
        with suppress(NotExchangeable):
            for state, weight in self._drawn_by_class(stage, loop, here).items():
                self.algebra.add(gone, state, weight)
            return gone
        for state, weight in here.items():
            wait(state, weight, None)
        while waiting:
            rank = max(waiting)
            moved = waiting.pop(rank)
            self.found.widest = max(self.found.widest, len(moved))
            turn += 1
            try:
                begin_turn(turn)
            except Impossible as obstacle:
                for state, weight in moved.items():
                    self._stop(loop.line, obstacle, state, weight)
                break
            for one in passes:
                moved = self.beyond(one, moved)
            for state, weight in moved.items():
                if state[JUMP] is not None and state[JUMP] > behind:
                    self.algebra.add(gone, state, weight)
                else:
                    wait(goes_on(state), weight, rank)
            self.budget.look(len(gone) + sum(map(len, waiting.values())), loop.line)
        return gone

    def _drawn_by_class(self, stage: Stage, loop: Loop, here: Layer) -> Layer:
        """The same at once, where it makes no difference in which order unknown cards come. Raises NotExchangeable."""
        if not draws_one_card(self.program, stage):
            raise NotExchangeable
        search = replace(self, algebra=TRACE, found=Exploration(transitions=self.found.transitions))
        ((behind, passes),) = stage.moves

        def once_round(layer: Layer) -> tuple[Layer, Layer]:
            for one in passes:
                layer = search.beyond(one, layer)
            if search.found.stuck:
                raise NotExchangeable
            on: Layer = {}
            for state, origins in layer.items():
                if state[JUMP] is None or state[JUMP] <= behind:
                    TRACE.add(on, goes_on(state), origins)
            return on, {state: origins for state, origins in layer.items() if state[JUMP] and state[JUMP] > behind}

        def worked(steps: int) -> None:
            search.found.transitions += steps
            self.budget.count(search.found.transitions, loop.line)

        gone = Exchangeable(self.program, loop, once_round, worked).behind(here, self.algebra)
        self.found.transitions = search.found.transitions
        return gone


def _one_after_the_other(runs: Sequence[Run]) -> Run:
    """All of them, up to the first that leaves for somewhere else."""
    if len(runs) == 1:
        return runs[0]

    def carry(cells: Cells) -> int | None:
        for run in runs:
            if leaves_for := run(cells):
                return leaves_for
        return None

    return carry


def _line_of(stage: Stage, runs: Sequence[Run], state: State, option: Any) -> int:
    """The line at which this path got stuck, found by going through the stage once more, step by step."""
    cells = list(state)
    if isinstance(stage.choose, Choose):
        cells[stage.choose.cell] = option
    for step, run in zip(stage.then, runs, strict=True):
        try:
            run(cells)
        except Impossible:
            return step.line
    raise AssertionError("it went through the second time")
