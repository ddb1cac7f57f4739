"""The answer to a routine, from all its paths."""

from __future__ import annotations

import time
from collections.abc import Sequence
from dataclasses import replace

from ..budget import Budget
from ..building import compile_routine
from ..english import list_text
from ..faults import BadRoutine, Fault, OutOfBudget
from ..language.facets import Facet
from ..language.routine import Routine
from ..search.counted import Count, of_paths
from ..search.explorer import count_of, explore
from ..search.frontiers import Exploration
from ..search.program import FAILED, Program
from ..search.replay import Play
from .all_paths import DRAWN_WITHOUT_NUMBER, FEW_TRANSITIONS, Drawn, Searched, ToldByDrawn, depends_on_order, explored
from .landings import MOST_STEPS_FOR_PLACES, Landing, end_places
from .refuting import Shown, counterexample, least_failing, why_stuck
from .regions import region_of
from .unclaimed import unclaimed, whatever
from .verdicts import EVERYTHING, PROVED, REFUTED, UNSETTLED, Asked, Claim, Verdict
from .witnesses import FINER, NONE_FAILS, Witness, witness_of


def prove(routine: Routine, budget: Budget | None = None, asked: Asked = EVERYTHING) -> Verdict:
    """The verdict over every path.

    Raises BadRoutine when the text has faults, when on every path more cards are asked for than there are, or when no
    path comes to any claim (unless that is not `asked`);
    Cancelled when the budget's flag is raised. Out of budget is a verdict of its own, *unsettled*, unless one of some
    paths drawn at random fails: it is then refuted all the same, and on how many paths is not told.
    """
    budget = budget or Budget()
    begun = time.perf_counter()
    drawn = Drawn(routine, budget)
    try:
        verdict = _settled(routine, budget, drawn, asked)
    except ToldByDrawn as told:
        verdict = _told_by_drawn(routine, told.shown)
    except OutOfBudget as limit:
        verdict = _stopped(routine, drawn.failing, limit, asked)
    return replace(verdict, seconds=time.perf_counter() - begun)


def _settled(routine: Routine, budget: Budget, drawn: Drawn, asked: Asked) -> Verdict:
    """Less and less is forgotten until what fails fails when it is played."""
    searched = _in_order_where_it_matters(routine, explored(routine, budget, drawn, asked), drawn, asked, budget)
    found = _answered(routine, searched, drawn, asked, budget)
    for purpose in FINER:
        if found is not None:
            return found
        program = compile_routine(routine, purpose)
        found = _answered(routine, Searched(program, explore(program, budget), True), drawn, asked, budget)
    if found is None:
        raise OutOfBudget("witness", NONE_FAILS)
    return found


def _in_order_where_it_matters(
    routine: Routine, searched: Searched, drawn: Drawn, asked: Asked, budget: Budget
) -> Searched:
    """What comes first makes a difference to how many paths get stuck."""
    if not searched.exact or searched.program.is_unlimited or not depends_on_order(searched):
        return searched
    some_end = bool(searched.found.ends)
    few = budget if some_end else budget.narrowed(budget.states or FEW_TRANSITIONS, FEW_TRANSITIONS)
    try:
        return explored(routine, few, drawn, replace(asked, example=False), reorder=False)
    except OutOfBudget:
        if some_end:
            raise
    return searched


def _answered(routine: Routine, searched: Searched, drawn: Drawn, asked: Asked, budget: Budget) -> Verdict | None:
    """The verdict by what has been searched; None where nothing that fails there fails when it is played."""
    program, found = searched.program, searched.found
    if not found.ends:  # in whatever order things are done
        raise BadRoutine([_never_possible(routine, found, budget)])
    count = count_of(program, found, searched.exact)
    claims = _claims(program, found, count)
    endings = [claim for claim, of in zip(claims, program.claims, strict=True) if not of.throughout]
    if asked.some_claim and endings and not found.stuck and not any(claim.reached != 0 for claim in endings):
        raise BadRoutine([_never_reached(routine, claim) for claim in endings])
    if asked.places or not program.claims:
        steps_for_places = MOST_STEPS_FOR_PLACES
    else:
        steps_for_places = FEW_TRANSITIONS if count.all_fail else 0
    verdict = _judged(routine, searched, claims, count, budget, steps_for_places)
    if verdict.verdict == REFUTED:
        witness = _witness(routine, searched, drawn, asked, budget)
        if witness is None:
            return None
        if asked.example:
            example = counterexample(routine, witness)
            verdict = replace(verdict, headline=example.sentence, counterexample=example)
    if asked.region and verdict.verdict == REFUTED:
        verdict = replace(verdict, holds_when=region_of(routine, budget))
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


def _witness(routine: Routine, searched: Searched, drawn: Drawn, asked: Asked, budget: Budget) -> Witness | None:
    """The least path that fails where an example is asked for, else any. Raises OutOfBudget where it would take too much to find."""
    if not asked.example and drawn.failing:
        return Witness(drawn.failing, None, least=False)
    try:
        return witness_of(routine, searched.least or least_failing(routine, budget, searched.exact), budget)
    except OutOfBudget:
        if drawn.failing is None:
            raise
        return Witness(drawn.failing, None, least=False)


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


def _stopped(routine: Routine, failing: Play | None, limit: OutOfBudget, asked: Asked) -> Verdict:
    """What is known where not all paths could be gone."""
    stopped = f"Not settled: {limit.reached}, and the search stopped there"
    if failing is None:
        return Verdict(UNSETTLED, stopped, limit=limit.limit)
    program, state = failing.program, failing.frames[-1].state
    example = counterexample(routine, Witness(failing, None, least=False))
    denied = [claim for i, claim in enumerate(program.claims) if state[FAILED] >> (i + 1) & 1]
    return Verdict(
        REFUTED,
        example.sentence if asked.example else "Fails",
        claims=tuple(Claim(claim.line, claim.text, False, None, None, True) for claim in denied),
        again_paths=None,
        failing_paths=None,
        count=Count(None, None, None, None, some_fail=True, some_stuck=failing.stuck_at is not None, counted=False),
        covers_every_order=program.covers_every_order,
        covers=program.covers,
        counterexample=example if asked.example else None,
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
            known = unclaimed(searched, count)
            refuted = replace(refuted, told=known.told, whereabouts=known.whereabouts)
        return refuted
    if not program.claims:
        return unclaimed(searched, count)
    return Verdict(PROVED, _proved(program, found, claims, count), landing())


def _never_reached(routine: Routine, claim: Claim) -> Fault:
    text = next(line.text for line in routine.walk() if line.number == claim.line)
    start = len(text) - len(text.lstrip())
    return Fault(
        claim.line, start + 1, len(text) + 1, "No path comes to this claim.", "a claim that some path comes to",
        "Change the cases above it, in which every path ends before.",
    )  # fmt: skip


def _never_possible(routine: Routine, found: Exploration, budget: Budget) -> Fault:
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
        f"No path gets past this line: {why_stuck(routine, stuck.line, budget) or stuck.reason}.",
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
        return f"Proved: {said}, {whatever(program)}"
    return f"Proved: every case has its ending, {whatever(program)}"


def _said(claim: str) -> str:
    kind, _, what = claim.partition(":")
    return f"{what.strip()} never shows" if kind == "Never shows" else what.strip()
