"""Where nothing is claimed: what the performer can know of the card, by what the told numbers leave open."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from ..search.counted import Count
from ..search.program import Program, State
from .all_paths import Searched
from .landings import MOST_CANDIDATES, Landing, by_formula, landing_of, with_rule
from .rules import told_numbers
from .verdicts import FIXED, LOST, ONE_OF, RULE, Verdict


def whatever(program: Program) -> str:
    return "whatever they choose" if program.choices() else "every time"


def unclaimed(searched: Searched, count: Count) -> Verdict:
    """Fixed, rule, one-of or lost: by what the told numbers leave open."""
    program, found, rule = searched.program, searched.found, searched.rule
    if program.target is None:
        return Verdict(FIXED, f"No card is followed; it can be carried out {whatever(program)}")
    # Paths may end before the line that names the card.
    ends = {state: paths for state, paths in found.ends.items() if program.where_is(state, program.target)}
    landing = landing_of(program, ends, count.paths is not None)
    if landing is None or not ends:
        return Verdict(FIXED, f"{program.target} is named on no path; it can be carried out {whatever(program)}")
    if rule:
        told = landing if _is_fixed(landing) else by_formula(landing, rule)
        verdict = replace(_known(program, told, rule.names, most=1), told=rule.names)
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
    told_of = landing
    if most == 1 and not _is_fixed(landing):
        told_of = with_rule(program, landing, names, {known: next(iter(where)) for known, where in seen.items()})
    return replace(_known(program, told_of, names, most), told=names, whereabouts=seen)


def _is_fixed(landing: Landing) -> bool:
    return len(landing.where) == 1


def _known(program: Program, landing: Landing, names: Sequence[str], most: int) -> Verdict:
    """What the performer can say of the card: at `most` so many places are left open by what has been told."""
    card = landing.card
    if _is_fixed(landing):
        return Verdict(FIXED, f"Sure: {card} is {landing.text}, {whatever(program)}", landing)
    if most == 1:
        by = f"at {landing.text}" if landing.formula else f"known from {', '.join(names)} by a table"
        return Verdict(RULE, f"A rule: {card} is {by}", landing)
    if most <= MOST_CANDIDATES:
        knowing = f", knowing {', '.join(names)}" if most < len(landing.where) else ""
        return Verdict(ONE_OF, f"One of {most}{knowing}: {card} is {landing.text}", landing)
    return Verdict(LOST, f"Lost: {card} may be in any of {most} places", landing)
