"""The answer to a routine: is it so on every path, and if not, how does it fail?"""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace

from ..budget import Budget
from ..building import compile_routine
from ..english import list_text
from ..faults import BadRoutine, Fault, OutOfBudget
from ..language.facets import Facet
from ..language.routine import Routine
from ..search.counted import Count, of_paths
from ..search.explorer import count_of
from ..search.frontiers import Exploration
from ..search.program import FAILED, Program, State
from ..search.replay import Play
from .all_paths import DRAWN_WITHOUT_NUMBER, FEW_TRANSITIONS, Drawn, Searched, ToldByDrawn, depends_on_order, explored
from .landings import MOST_CANDIDATES, MOST_STEPS_FOR_PLACES, Landing, by_formula, end_places, landing_of, with_rule
from .refuting import Counterexample, Shown, counterexample, least_failing
from .regions import Region, region_of
from .rules import told_numbers

PROVED, REFUTED, UNSETTLED = "proved", "refuted", "unsettled"
FIXED, RULE, ONE_OF, LOST = "fixed", "rule", "one-of", "lost"


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


def prove(
    routine: Routine,
    budget: Budget | None = None,
    explain: bool = True,
    some_claim: bool = True,
    places: bool = True,
    whereabouts: Collection[str] | None = None,
) -> Verdict:
    """The verdict over every path. Unless it is to `explain`, a refutation comes without its counterexample and region.

    Without `places` it is told where the card lies at the end only where nothing is claimed, or every path fails.
    With `whereabouts` it is told of all that one may be told where the card then is, even where a formula says as much;
    these numbers are then part of what one is told, though no line may go by them.

    Raises BadRoutine when the text has faults, when on every path more cards are asked for than there are, or when no
    path comes to any claim (unless `some_claim` is False: then each is told as reached by none);
    Cancelled when the budget's flag is raised. Out of budget is a verdict of its own, *unsettled*, unless one of some
    paths drawn at random fails: it is then refuted all the same, and on how many paths is not told.
    """
    budget = budget or Budget()
    begun = time.perf_counter()
    drawn = Drawn(routine, budget)
    try:
        verdict = _settled(routine, budget, drawn, explain, some_claim, places, whereabouts)
    except ToldByDrawn as told:
        verdict = _told_by_drawn(routine, told.shown)
    except OutOfBudget as limit:
        verdict = _stopped(routine, drawn.failing, limit, explain)
    return replace(verdict, seconds=time.perf_counter() - begun)


def _settled(
    routine: Routine,
    budget: Budget,
    drawn: Drawn,
    explain: bool,
    some_claim: bool,
    places: bool,
    whereabouts: Collection[str] | None,
) -> Verdict:
    searched = explored(routine, budget, drawn, True, places, explain, whereabouts)
    # What comes first makes a difference to how many paths get stuck.
    if searched.exact and not searched.program.is_unlimited and depends_on_order(searched):
        some_end = bool(searched.found.ends)
        few = budget if some_end else budget.narrowed(budget.states or FEW_TRANSITIONS, FEW_TRANSITIONS)
        try:
            searched = explored(routine, few, drawn, False, places, False, whereabouts)
        except OutOfBudget:
            if some_end:
                raise
    program, found = searched.program, searched.found
    if not found.ends:  # in whatever order things are done
        raise BadRoutine([_never_possible(routine, found)])
    count = count_of(program, found, searched.exact)
    claims = _claims(program, found, count)
    endings = [claim for claim, of in zip(claims, program.claims, strict=True) if not of.throughout]
    if some_claim and endings and not found.stuck and not any(claim.reached != 0 for claim in endings):
        raise BadRoutine([_never_reached(routine, claim) for claim in endings])
    if places or not program.claims:
        steps_for_places = MOST_STEPS_FOR_PLACES
    else:
        steps_for_places = FEW_TRANSITIONS if count.all_fail else 0
    verdict = _judged(routine, searched, claims, count, budget, steps_for_places)
    if explain and verdict.verdict == REFUTED:
        verdict = _explained(routine, verdict, searched, drawn, budget)
    return replace(
        verdict,
        claims=claims,
        paths=count.paths,
        again_paths=count.again,
        failing_paths=count.failing,
        count=count,
        states_widest=found.widest,
        transitions=found.transitions,
        covers_every_order=program.covers_every_order,
        covers=program.covers,
        assumed=program.assumed,
    )


def _told_by_drawn(routine: Routine, shown: Shown) -> Verdict:
    """Paths have no number; some hold, and every claim fails on some."""
    program = compile_routine(routine)
    return Verdict(
        REFUTED,
        "Fails",
        claims=tuple(
            Claim(claim.line, claim.text, False, None, None, bool(shown.denied >> (i + 1) & 1))
            for i, claim in enumerate(program.claims)
        ),
        again_paths=None,
        failing_paths=None,
        count=Count(None, None, None, None, some_fail=True, some_stuck=shown.stuck),
        transitions=DRAWN_WITHOUT_NUMBER,
        covers_every_order=program.covers_every_order,
        covers=program.covers,
        assumed=program.assumed,
    )


def _stopped(routine: Routine, failing: Play | None, limit: OutOfBudget, explain: bool) -> Verdict:
    """What is known where not all paths could be gone."""
    stopped = f"Not settled: {limit.reached}, and the search stopped there"
    if failing is None:
        return Verdict(UNSETTLED, stopped, limit=limit.limit)
    program, state = failing.program, failing.frames[-1].state
    example = counterexample(routine, failing, least=False)
    denied = [claim for i, claim in enumerate(program.claims) if state[FAILED] >> (i + 1) & 1]
    return Verdict(
        REFUTED,
        example.sentence if explain else "Fails",
        claims=tuple(Claim(claim.line, claim.text, False, None, None, True) for claim in denied),
        again_paths=None,
        failing_paths=None,
        count=Count(None, None, None, None, some_fail=True, some_stuck=failing.stuck_at is not None, counted=False),
        covers_every_order=program.covers_every_order,
        covers=program.covers,
        counterexample=example if explain else None,
        assumed=program.assumed,
        limit=limit.limit,
    )


def _judged(
    routine: Routine, searched: Searched, claims: Sequence[Claim], count: Count, budget: Budget, steps: int
) -> Verdict:
    program, found = searched.program, searched.found

    def landing() -> Landing | None:
        few = budget.narrowed(budget.states or steps, steps)
        return end_places(routine, program, found, count, few) if steps else None

    if count.some_fail:
        refuted = Verdict(REFUTED, "Fails", landing=landing())
        if not program.claims:  # what is known on the paths that come to their end
            known = _unclaimed(searched, count)
            refuted = replace(refuted, told=known.told, whereabouts=known.whereabouts)
        return refuted
    if not program.claims:
        return _unclaimed(searched, count)
    return Verdict(PROVED, _proved(program, found, claims, count), landing())


def _never_reached(routine: Routine, claim: Claim) -> Fault:
    text = next(line.text for line in routine.walk() if line.number == claim.line)
    start = len(text) - len(text.lstrip())
    return Fault(
        claim.line, start + 1, len(text) + 1, "No path comes to this claim.", "a claim that some path comes to",
        "Change the cases above it, in which every path ends before.",
    )  # fmt: skip


def _never_possible(routine: Routine, found: Exploration) -> Fault:
    if found.again and not found.stuck:
        first = routine.having(Facet.RESTARTS)[0]
        return Fault(
            first.number, 1, len(first.text) + 1, "Every path starts again, without end.",
            "a path on which the routine goes on", "Change the case around this line.",
        )  # fmt: skip
    stuck = max(found.stuck, key=lambda s: s.line)
    line = next(line for line in routine.walk() if line.number == stuck.line)
    return Fault(
        stuck.line,
        1,
        len(line.text) + 1,
        f"No path gets past this line: {stuck.reason}.",
        "something that can be done on at least one path",
        "Change the numbers or the heap.",
    )


# With endings claimed, or with paths that cannot be gone


def _claims(program: Program, found: Exploration, count: Count) -> tuple[Claim, ...]:
    stuck, ended = sum(found.stuck.values()), (*found.ends.items(), *found.again.items())
    numbered = count.paths is not None
    judged = [state for state, _ in ended] + [one.state for one in found.stuck]

    def of(i: int) -> Claim:
        claim = program.claims[i]
        failing = sum(w for state, w in ended if state[FAILED] >> (i + 1) & 1) + stuck
        reached = sum(
            w
            for state, w in (ended if claim.throughout else found.ends.items())
            if not claim.marked or (program.reached is not None and state[program.reached] >> i & 1)
        )
        # Without a number there is still a difference between some and none.
        return Claim(
            claim.line,
            claim.text,
            not failing,
            failing if numbered else None,
            reached if numbered or not reached else None,
            any(state[FAILED] >> (i + 1) & 1 for state in judged),
        )

    return tuple(map(of, range(len(program.claims))))


def _proved(program: Program, found: Exploration, claims: Sequence[Claim], count: Count) -> str:
    """The headline: what is proved, and of which paths."""
    missed = [str(claim.line) for claim in claims if claim.reached == 0]
    if missed:  # a case that does not occur: nothing is proved of it
        claims = [claim for claim in claims if claim.reached != 0]
        nobody = f"; no path comes to line{'s' if len(missed) > 1 else ''} {list_text(missed)}"
        return _proved(program, found, claims, count) + nobody
    said = " and ".join(dict.fromkeys(_said(claim.text) for claim in claims))
    lines = {claim.line for claim in claims}
    marked = sum(1 << i for i, claim in enumerate(program.claims) if claim.marked and claim.line in lines)
    in_cases = program.reached is not None and any(state[program.reached] & marked != marked for state in found.ends)
    if count.some_miss:
        where = f"on the {of_paths(count.reached, count.paths)}" if count.reached and count.paths else "on the paths"
        what = "every ending" if len(claims) > 1 else said
        return f"Proved {where} that come to it: {what}; the others end before, and nothing is claimed of them"
    if not in_cases:
        return f"Proved: {said}, {_whatever(program)}"
    return f"Proved: every case has its ending, {_whatever(program)}"


def _said(claim: str) -> str:
    kind, _, what = claim.partition(":")
    return f"{what.strip()} never shows" if kind == "Never shows" else what.strip()


def _explained(routine: Routine, refuted: Verdict, searched: Searched, drawn: Drawn, budget: Budget) -> Verdict:
    try:
        least = searched.least or least_failing(routine, budget, searched.exact)
        example = counterexample(routine, least)
    except OutOfBudget:
        if drawn.failing is None:
            raise
        example = counterexample(routine, drawn.failing, least=False)
    return replace(refuted, headline=example.sentence, counterexample=example, holds_when=region_of(routine, budget))


def _whatever(program: Program) -> str:
    return "whatever they choose" if program.choices() else "every time"


# Without a claim: what the performer can know


def _unclaimed(searched: Searched, count: Count) -> Verdict:
    """Fixed, rule, one-of or lost: by what the told numbers leave open."""
    program, found, rule = searched.program, searched.found, searched.rule
    if program.target is None:
        return Verdict(FIXED, f"No card is followed; it can be carried out {_whatever(program)}")
    # Paths may end before the line that names the card.
    ends = {state: paths for state, paths in found.ends.items() if program.where_is(state, program.target)}
    landing = landing_of(program, ends, count.paths is not None)
    if landing is None or not ends:
        return Verdict(FIXED, f"{program.target} is named on no path; it can be carried out {_whatever(program)}")
    if rule:
        verdict = replace(_known(program, landing, by_formula(landing, rule), rule.names, most=1), told=rule.names)
    else:
        verdict = _landed(program, landing, ends)
    if len(ends) < len(found.ends):
        return replace(verdict, headline=f"{verdict.headline}; on some paths it is never named")
    return verdict


def _landed(program: Program, landing: Landing, ends: dict[State, int]) -> Verdict:
    told = told_numbers(program)
    names = tuple(program.cells[i].name for i in told)
    seen: dict[tuple[int, ...], Counter[tuple[str, int]]] = {}
    for state, paths in ends.items():
        where = program.where_is(state, landing.card)
        assert where is not None
        seen.setdefault(tuple(state[i] for i in told), Counter())[where] += paths
    most = max(map(len, seen.values()))
    by_told = (
        with_rule(program, landing, names, {known: next(iter(where)) for known, where in seen.items()})
        if most == 1
        else landing
    )
    return replace(_known(program, landing, by_told, names, most), told=names, whereabouts=seen)


def _known(program: Program, landing: Landing, by_told: Landing, names: Sequence[str], most: int) -> Verdict:
    """What the performer can say of the card: at `most` so many places are left open by what has been told."""
    card = landing.card
    if len(landing.where) == 1:
        return Verdict(FIXED, f"Sure: {card} is {landing.text}, {_whatever(program)}", landing)
    if most == 1:
        landing = by_told
        by = f"at {landing.text}" if landing.formula else f"known from {', '.join(names)} by a table"
        return Verdict(RULE, f"A rule: {card} is {by}", landing)
    if most <= MOST_CANDIDATES:
        knowing = f", knowing {', '.join(names)}" if most < len(landing.where) else ""
        return Verdict(ONE_OF, f"One of {most}{knowing}: {card} is {landing.text}", landing)
    return Verdict(LOST, f"Lost: {card} may be in any of {most} places", landing)
