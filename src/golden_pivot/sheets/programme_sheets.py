"""A programme on paper: running order, packing list, set-ups in the order in which they are made, all cue sheets; its date as .ics."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import UTC, datetime, time, timedelta

from icalendar import Calendar, Event

from ..core.budget import Budget
from ..core.english import counted
from ..core.faults import BadRoutine
from ..core.language.parser import read_routine
from ..core.programme.occasion import Occasion, parsed_day
from ..core.programme.running_order import RunningOrder
from ..core.show.paces import Paces
from ..core.show.prediction_sheet import predictions_of
from ..core.show.setup import setup_of
from .document import Document, Grid, Heading, Items, Paragraph, Part
from .sheets import SHEETS, shown


def programme_documents(
    occasion: Occasion, running: RunningOrder, texts: Mapping[str, str], budget: Budget, paces: Paces
) -> tuple[Document, ...]:
    """`texts`: of the routines by uid."""
    first = [turn for turn in running.turns if turn.after is None]
    # What is used last is made first, so that what is used first lies uppermost.
    setups = [SHEETS["setup"](shown(texts[turn.uid], budget.afresh(), paces)) for turn in reversed(first)]
    cues = []
    for nth, uid in enumerate(dict.fromkeys(turn.uid for turn in running.turns), start=1):
        budget.progress(f"cue sheet {nth}")
        cues.append(SHEETS["cues"](shown(texts[uid], budget.afresh(), paces)))
    return (_running_order(occasion, running), _packing_list(occasion, running, texts), *setups, *cues)


def _subtitle(occasion: Occasion) -> str:
    people = counted(occasion.people, "guest") if occasion.people else ""
    return ", ".join(filter(None, (occasion.held_on, occasion.begins, occasion.place, occasion.audience, people)))


def _running_order(occasion: Occasion, running: RunningOrder) -> Document:
    return Document(
        occasion.title, f"Running order {_subtitle(occasion)}".strip(), None, tuple(_order(occasion, running))
    )


def _order(occasion: Occasion, running: RunningOrder) -> Iterator[Part]:
    yield Grid(
        ("", "at", "routine", "takes", "pack"),
        tuple(
            (str(nth), _clock(turn.begins), turn.title, _clock(turn.seconds), str(turn.pack))
            for nth, turn in enumerate(running.turns, start=1)
        ),
    )
    allowed = f" of {occasion.minutes} minutes allowed" if occasion.minutes else ""
    yield Paragraph(
        f"{_clock(running.seconds)} in all{allowed}, {running.resetting:.0f} seconds of it between routines."
    )
    between = [turn for turn in running.turns if turn.between and turn.between.moves]
    if between:
        yield Heading("Between")
    for turn in between:
        assert turn.between
        before = running.turns[turn.after or 0].title
        yield Paragraph(f"Pack {turn.pack}, {before} to {turn.title}: about {turn.between.seconds:.0f} seconds.")
        yield Items(
            tuple(move.words + (" (unseen)" if move.is_covered else "") for move in turn.between.moves), numbered=True
        )
    ready = tuple(f"{turn.title}: {turn.ready}" for turn in running.turns if turn.ready)
    if ready:
        yield Heading("While a pack waits")
        yield Items(ready)
    if running.calls:
        yield Heading("Think of")
        yield Items(tuple(call.says for call in running.calls))


def _clock(seconds: float) -> str:
    """
    >>> _clock(65.4)
    '1:05'
    """
    return f"{int(seconds) // 60}:{int(seconds) % 60:02}"


def _packing_list(occasion: Occasion, running: RunningOrder, texts: Mapping[str, str]) -> Document:
    first = [turn for turn in running.turns if turn.after is None]
    beside: dict[str, None] = {}
    pens = False
    for uid in dict.fromkeys(turn.uid for turn in running.turns):
        routine = read_routine(texts[uid])
        try:
            found = setup_of(routine)
        except BadRoutine:
            continue
        title = routine.title or "Untitled"
        beside |= dict.fromkeys(f"{what} ({title})" for what in found.materials[1:])
        pens |= any(one.on_paper for one in predictions_of(routine)) or any(one.written for one in found.lying)
    packs = tuple(f"pack {turn.pack}, for {turn.title}" for turn in first)
    things = (*packs, *beside, *(("pen and paper",) if pens else ()))
    pockets = tuple(f"{place}: {', '.join(titles)}" for place, titles in _pockets(running, texts).items())
    parts: list[Part] = [Heading("To take along"), Items(things or ("nothing",))]
    if pockets:
        parts += [Heading("Pockets and places off the table"), Items(pockets)]
    return Document(occasion.title, f"Packing list {_subtitle(occasion)}".strip(), None, tuple(parts))


def _pockets(running: RunningOrder, texts: Mapping[str, str]) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for turn in running.turns:
        for place in sorted(turn.pockets):
            found.setdefault(place, []).append(turn.title)
    return found


def calendar_of(occasion: Occasion, uid: str, running: RunningOrder | None) -> bytes:
    """An .ics file; a whole day where no time is settled. Raises ValueError where no day is."""
    day = parsed_day(occasion)
    if day is None:
        raise ValueError("no day is settled")
    event = Event()
    event.add("uid", f"{uid}@golden-pivot")
    event.add("summary", occasion.title)
    event.add("dtstamp", datetime(day.year, day.month, day.day, tzinfo=UTC))
    if occasion.begins:
        hour, minute = map(int, occasion.begins.split(":"))
        begins = datetime.combine(day, time(hour, minute))
        lasts = timedelta(minutes=occasion.minutes or max(1, round((running.seconds if running else 3600) / 60)))
        event.add("dtstart", begins)
        event.add("dtend", begins + lasts)
    else:
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
    if occasion.place:
        event.add("location", occasion.place)
    if running:
        event.add("description", "\n".join(f"{nth}. {turn.title}" for nth, turn in enumerate(running.turns, start=1)))
    calendar = Calendar()
    calendar.add("prodid", "-//Golden Pivot//EN")
    calendar.add("version", "2.0")
    calendar.add_component(event)
    return bytes(calendar.to_ical())
