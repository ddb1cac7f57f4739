"""Answers of the core as plain JSON values, the same on the command line and over HTTP."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from fractions import Fraction
from typing import Any

from ..faults import Fault
from ..language.routine import Line, Routine
from ..language.templates import SPECTATOR
from ..layouts import Layout
from ..search.program import Program, State
from ..search.replay import Frame, Play
from .ledger import Entry
from .notes import Notes
from .odds import Chance, Odds
from .regions import Region
from .strands import Strands
from .verdicts import Landing, Verdict


def fault_json(fault: Fault) -> dict[str, Any]:
    return {
        "line": fault.line,
        "column": fault.column,
        "end": fault.end,
        "message": fault.message,
        "expected": fault.expected,
        "remedy": fault.remedy,
    }


def landing_json(landing: Landing) -> dict[str, Any]:
    return {
        "card": landing.card,
        "text": landing.text,
        "where": [{"place": w.place, "position": w.position, "paths": w.paths} for w in landing.where],
        "known": list(landing.known),
        "formula": landing.formula,
        "table": [
            {"known": list(row.known), "words": list(row.words), "place": row.place, "position": row.position}
            for row in landing.table
        ],
    }


def verdict_json(verdict: Verdict) -> dict[str, Any]:
    """`counterexample` and `holds_when` are null unless the verdict is refuted; numbers of paths are null where they have none."""
    example, region = verdict.counterexample, verdict.holds_when
    return {
        "verdict": verdict.verdict,
        "headline": verdict.headline,
        "landing": landing_json(verdict.landing) if verdict.landing else None,
        "claims": [
            {
                "line": c.line,
                "text": c.text,
                "holds": c.holds,
                "failing_paths": c.failing_paths,
                "reached": c.reached,
            }
            for c in verdict.claims
        ],
        "paths": verdict.paths,
        "again_paths": verdict.again_paths,
        "failing_paths": verdict.failing_paths,
        "reached": verdict.count and verdict.count.reached,
        "counted": verdict.count.text if verdict.count else "",
        "states_widest": verdict.states_widest,
        "transitions": verdict.transitions,
        "covers_every_order": verdict.covers_every_order,
        "covers": verdict.covers,
        "seconds": round(verdict.seconds, 6),
        "counterexample": example
        and {
            "choices": dict(example.choices),
            "labels": list(example.labels),
            "sentence": example.sentence,
            "stuck_at": example.stuck_at,
        },
        "holds_when": region and region_json(region),
        "assumed": list(verdict.assumed),
        "limit": verdict.limit,
    }


def region_json(region: Region) -> dict[str, Any]:
    return {
        "text": region.text,
        "fails": region.fails,
        "passing": region.passing,
        "paths": region.paths,
        "reached": region.count.reached or 0,
        "says": region.says,
        "values": {name: list(values) for name, values in region.values.items()},
    }


def ledger_json(entries: Sequence[Entry]) -> list[dict[str, Any]]:
    return [
        {
            "line": entry.line,
            "round": list(entry.round),
            "text": entry.text,
            "sure": sum(len(positions) for _, positions in entry.where) == 1 or entry.formula is not None,
            "where": [{"place": place, "positions": list(positions)} for place, positions in entry.where],
        }
        for entry in entries
    ]


def sheet_json(routine: Routine) -> list[dict[str, Any]]:
    """What the sheet needs to dress each line of the text: who acts, what is secret, where the slots are."""
    return [_sheet_line(line) for line in routine.walk()]


def _sheet_line(line: Line) -> dict[str, Any]:
    values = line.values
    spectator = line.kind is not None and line.kind.actor(values) == SPECTATOR
    return {
        "number": line.number,
        "is": line.is_,
        "step": line.kind.name if line.kind else None,
        "phase": line.kind.phase if line.kind else None,
        "spectator": spectator,
        "knowledge": _knowledge(line),
        "level": line.level,
        "slots": [
            {"name": name, "type": type_name, "start": start, "end": end}
            for name, type_name, start, end in line.spans
        ],
        "faults": [fault_json(fault) for fault in line.faults],
    }


def _knowledge(line: Line) -> str | None:
    """`secret` or `told` for a line in which the spectator decides or speaks."""
    if line.kind is None or line.kind.family != "Choices":
        return None
    return "secret" if line.values.get("secretly") else "told"


def _one_a_line(frames: Sequence[Frame]) -> Iterator[Frame]:
    """A line may take several instructions; the table shows it once, when it is done."""
    for frame, following in zip(frames, (*frames[1:], None), strict=True):
        if following is None or (following.line, following.round) != (frame.line, frame.round):
            yield frame


def _names(program: Program, state: State) -> dict[str, str]:
    """Token → what the card is called by now: a card may have a name of its own and be their card as well."""
    found: dict[int, list[str]] = {}
    for name in (*program.tokens, *program.card_cells):
        token = program.token_of(state, name)
        if token is not None:
            found.setdefault(token, []).append(name)
    return {str(token): " = ".join(names) for token, names in found.items()}


def play_json(played: Play) -> dict[str, Any]:
    """Cards are numbers from 1, with 128 added when they lie face up; `names` has those that have one."""
    program = played.program
    places = program.places()
    numbered = {choose.cell for choose in program.choices() if choose.plain} | {
        index for index, cell in enumerate(program.cells) if cell.told
    }
    return {
        "odd": sorted(program.odd_backs),
        "target": program.target,
        "frames": [
            {
                "line": frame.line,
                "names": _names(program, frame.state),
                "at": _where_json(program.where_is(frame.state, program.target)),
                "round": list(frame.round),
                "places": [
                    _place_json(name, program.cells[index].layout, frame.state[index]) for index, name in places
                ],
                "numbers": {
                    cell.name: frame.state[index]
                    for index, cell in enumerate(program.cells)
                    if index in numbered and frame.state[index] is not None
                },
            }
            for frame in _one_a_line(played.frames)
        ],
        "decisions": [
            {
                "key": d.key,
                "label": d.label,
                "line": d.line,
                "by": d.by,
                "secret": d.secret,
                "options": list(d.options),
                "words": list(d.words),
                "value": d.value,
            }
            for d in played.decisions
        ],
        "failures": list(played.failures),
        "stuck_at": played.stuck_at,
        "faults": [fault_json(fault) for fault in played.faults],
    }


def _place_json(name: str, layout: Layout, cards: bytes) -> dict[str, Any]:
    """`spots`: (cards to the left, rows above) of each card; none for a heap."""
    return {
        "name": name,
        "lies": layout.lies,
        "spots": [] if layout.is_heap else [list(spot) for spot in layout.spots(len(cards))],
        "cards": list(cards),
    }


def _where_json(where: tuple[str, int] | None) -> dict[str, Any] | None:
    return where and {"place": where[0], "position": where[1]}


def strands_json(strands: Strands) -> dict[str, Any]:
    """`to` of an edge is null where its paths cannot go on."""
    return {
        "card": strands.card,
        "beginning": {
            "line": strands.beginning.line,
            "last": strands.beginning.last,
            "turn": strands.beginning.turn,
            "where": [_where_json(where) for where in strands.beginning.where],
        },
        "columns": [
            {
                "line": column.line,
                "last": column.last,
                "turn": column.turn,
                "edges": [
                    {
                        "from": _where_json(edge.source),
                        "to": _where_json(edge.to),
                        "paths": edge.paths,
                        "can_succeed": edge.can_succeed,
                        "can_fail": edge.can_fail,
                    }
                    for edge in column.edges
                ],
            }
            for column in strands.columns
        ],
    }


def notes_json(notes: Notes) -> dict[str, Any]:
    return {
        "badges": list(notes.badges),
        "remembered": [{"name": r.name, "learned": r.learned, "needed": list(r.needed)} for r in notes.remembered],
        "shows": [{"line": s.line, "what": s.what} for s in notes.shows],
        "asks_odds": notes.asks_odds,
        "recap": [{"words": s.words, "true": s.true, "line": s.line} for s in notes.recap],
    }


def odds_json(odds: Odds) -> dict[str, Any]:
    """Chances as fractions in words and as decimals; `samples` is null where they are exact."""
    return {
        "chances": [
            {
                "about": c.about, "outcome": c.outcome, "least": float(c.least), "most": float(c.most),
                "exact": c.exact, "seen": None if c.seen is None else float(c.seen), "text": chance_text(c),
            }
            for c in odds.chances
        ],
        "samples": odds.samples,
        "says": odds.says,
        "assumes": odds.assumes,
    }  # fmt: skip


def chance_text(chance: Chance) -> str:
    """`1 in 51`, `28.04 %`, `between 0 % and 40 %`, `about 25 % (95 times in 100 from 23.7 % to 26.4 %)`."""
    low, high = chance.least, chance.most
    if low == high and low.numerator == 1 and 1 < low.denominator <= 10_000:
        return f"1 in {low.denominator:,}"
    if low == high:
        return _per_cent(low)
    if chance.seen is not None:
        return f"about {_per_cent(chance.seen)} (95 times in 100 from {_per_cent(low)} to {_per_cent(high)})"
    return f"between {_per_cent(low)} and {_per_cent(high)}"


def _per_cent(share: Fraction) -> str:
    number = float(share) * 100
    return f"{number:.4g} %" if number >= 0.01 or number == 0 else f"{number:.1e} %"
