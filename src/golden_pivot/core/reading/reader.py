"""Reading what performers write: a line of notes, behind a routine, as sentences of the language.

The answer is a list of readings, the likeliest first. Every reading is checked by the strict parser in its place: what is
offered can be carried out as far as that can be seen from the text. Reading never raises.
"""

from __future__ import annotations

import logging
import re
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from ..language.parser import sentence
from ..language.templates import SPECTATOR
from . import kinds_of_line, lists
from .amounts import number_said
from .answer import NOTHING, Answer, Reading, checked
from .clauses import Clause, clauses_of
from .filling import Candidate, candidates
from .idioms import CANNOT, IDIOMS, told
from .lexicon import LEMMAS, TIMES
from .names_and_people import by_that_person, under_its_name
from .normal import normal, respelled
from .nouns import place_named
from .situation import Situation, situation_of

logger = logging.getLogger(__name__)
MOST_READINGS = 4
MOST_SAID = 600
"""letters of a sentence; more is no sentence of notes"""
_TABLED = re.compile(r" ,? ?(?:and )?table (?:them|it|these|those)(?: for a (?:second|moment|while|2nd))?\b")
_ASIDE = re.compile(r" ,? ?and (?:put|lay|set|place|leave|keep) (?:(?:it|them|these|those) )?(?=aside\b)")
_POCKETED = re.compile(r" ,? ?and pocket (?:it|them)\b")
_LIFTS = re.compile(r"\b(?:cut off|lift|lift off|take|remove|pick|pull out|draw|count|deal|cut)\b")
_TO_WHERE = re.compile(
    r" ,? ?and (?:drop|put|place|lay|hide|set|throw|keep|deposit) (?:(?:it|them|these|those) )?(?:down )?(?:on|onto|in|into|to) (?=(?:my |their )?(?:table|pocket|hand|box|mat|envelope|case|hat|glass|wallet))"
)
"""*lift off ten and drop them on the table* is one thing"""


_CLAIM = re.compile(r"(?:ends? with|the end|ending)\s*:\s*", re.I)


def read_line(before: str, said: str) -> Answer:
    """`before`: the routine above the line, as it stands."""
    text = said.strip()
    if not text or len(text) > MOST_SAID or "\n" in text:
        return NOTHING
    try:
        found = _read(before.rstrip("\n"), text, said[: len(said) - len(said.lstrip())])
        return replace(found, readings=_told_apart(found.readings)) if found.asks else found
    except Exception:  # whatever a wording does: one line that cannot be answered takes no other with it
        logger.exception("no reading for %r", text)
        return NOTHING


def _told_apart(readings: tuple[Reading, ...]) -> tuple[Reading, ...]:
    """With what each does to the order of the cards, unless that is the same for all."""
    done = [_done(one.lines) for one in readings]
    return (
        tuple(replace(one, does=does) for one, does in zip(readings, done, strict=True))
        if len(set(done)) > 1
        else readings
    )


def _done(lines: tuple[str, ...]) -> str:
    read = (sentence(line.strip()) for line in lines)
    return "; ".join(dict.fromkeys(line.kind.does for line in read if line and line.kind and line.kind.does))


@lru_cache(1024)
def _read(before: str, text: str, margin: str) -> Answer:
    s = situation_of(before)
    s = replace(s, margin=margin if len(margin) >= len(s.opened) else s.opened)
    if (kept := kinds_of_line.kept(text, s)) is not None:
        return _with_handling(before, text, margin) or Answer((Reading((kept,)),))
    strict = _strictly(before, text, s)
    if strict and not kinds_of_line.may_mislead(text, s):
        return Answer((Reading(strict),))
    if (
        named := under_its_name(before, text, margin, _read) or by_that_person(before, text, margin, _read)
    ) is not None:
        return named
    if claim := _CLAIM.match(text):
        found = _read(before, text[claim.end() :], margin)
        claims = all(line.startswith("Ends with:") for one in found.readings for line in one.lines)
        return found if found.readings and claims else NOTHING
    text = kinds_of_line.bared(text)
    if not kinds_of_line.may_mislead(text, s) and (
        meant := _strictly(before, respelled(text.replace("ontop", "on top"), s.names), s)
    ):
        return Answer((Reading(meant),))
    for mend in (False, True):
        plain = normal(text, s.names, mend)
        found = _answered(before, plain, s, None, 0, kinds_of_line.is_script(text))
        if found.readings or found.cannot:
            return found
    if strict:
        return Answer((Reading(strict),))
    said = kinds_of_line.left_over(text)
    return Answer((Reading((said,)),)) if said else NOTHING


def _with_handling(before: str, text: str, margin: str) -> Answer | None:
    """*Square the pack and give it a cut*: what is only done on the stage is kept as a remark, and the handling behind it is read."""
    if text.startswith(("#", "“", "(", "'", '"', "‘")) or ":" in text:
        return None
    for joint in re.finditer(r"(?:,? and then|,? then|,? and|[,;]) ", text):
        behind = _read(before, text[joint.end() :], margin)
        if behind.is_sure and not behind.readings[0].lines[0].startswith(("#", "“", "Note:", "Credit:", "Title:")):
            found = behind.readings[0]
            return Answer((replace(found, lines=(f"# {text[: joint.start()]}", *found.lines)),))
    return None


def _strictly(before: str, text: str, s: Situation) -> tuple[str, ...] | None:
    """The line as the language writes it, where it is a sentence of it already."""
    if sentence(text) is None:
        return None
    found = checked(before, (text,), s.margin)
    return found if found and not text.startswith(("#", "“")) else None


def _answered(before: str, plain: str, s: Situation, who: str | None, depth: int, script: bool = False) -> Answer:
    """One clause, or several one after the other."""
    merged = (
        _ASIDE.sub(" ", _TABLED.sub(" to table", _POCKETED.sub(" to pocket", _TO_WHERE.sub(" to ", plain))))
        if _LIFTS.search(plain)
        else plain
    )
    if (made := lists.listed(plain, s)) and (sound := checked(before, (made,), s.margin)):
        return Answer((Reading(sound),))
    for left_free in (_any_of(before, plain, s) if depth == 0 else None, _may(before, plain, s, depth)):
        if left_free is not None:
            return left_free
    for clause in (
        *clauses_of(merged, who, s, script),
        *(clauses_of(plain, who, s, script) if merged != plain else ()),
    ):
        whole = _one_clause(before, clause, s)
        if whole.readings or whole.cannot:
            return whole
    if (
        depth == 0
        and (m := re.fullmatch(r"(.+?) ,? ?(?:(twice|thrice)|(\d+) times)(?: in all)?", plain))
        and not re.search(r"^(?:repeat|do|if|when|until) ", m[1])
    ):
        once = _answered(before, m[1], s, who, 1, script)
        if once.is_sure and len(once.readings[0].lines) == 1 and not once.readings[0].lines[0].endswith(":"):
            times = TIMES[m[2]] if m[2] else int(m[3])
            return Answer(
                (Reading((f"Repeat {times} times:", f"  {once.readings[0].lines[0]}"), once.readings[0].taken),)
            )
    if depth < 5:
        for left, right, joint in _splits(merged):
            answer = _in_two(before, left, right, joint, s, who, depth, script)
            if answer is not None:
                return answer
    return NOTHING


_LIKED = re.compile(
    r"(?:they )?(?:do it|do this|go on|carry on|keep on|continue|repeat this)? ?,? ?(?:for )?as (?:long|often|many times) as they (?:like|please|want) ,? ?(.+?) (?:or|and) (.+?)(?: ,? in any order)?"
)


def _any_of(before: str, plain: str, s: Situation) -> Answer | None:
    """*For as long as they like, cutting or turning the top two over*: one of these, again and again."""
    m = _LIKED.fullmatch(plain)
    if m is None:
        return None
    moves = [_answered(before, f"they {words}", s, None, 1) for words in m.groups()]
    if not all(one.is_sure and len(one.readings[0].lines) == 1 for one in moves):
        return None
    made = ("As often as the spectator likes, one of:", *(f"  {one.readings[0].lines[0]}" for one in moves))
    sound = checked(before, made, s.margin)
    return Answer((Reading(sound),)) if sound else None


_LEFT_TO = r"(?:like|wish|want|please|care|prefer|choose)(?: to)?"
_MAY = re.compile(
    rf"(?:if they {_LEFT_TO} ,? )?(?P<may>they (?:may|might) ,? )?(?:if they {_LEFT_TO} ,? )?(?P<move>.+?)(?:(?: ,)? if they {_LEFT_TO})?"
)


def _may(before: str, plain: str, s: Situation, depth: int) -> Answer | None:
    """*They turn the deck over if they like*: done or not, as the spectator decides."""
    if depth or not re.search(rf"\bif they {_LEFT_TO}( ,|$)", plain):
        return None
    m = _MAY.fullmatch(plain)
    move = re.sub("^(?:they |let them |have them )?(?:can |may |could )?", "", m["move"]) if m else ""
    name = next((one for one in "mkwxyz" if one not in s.names), None)
    if not move or name is None:
        return NOTHING
    decided = f"Spectator chooses a number {name} from 0 to 1", f"If {name} is 1:"
    behind = "\n".join([before, *(s.margin + line for line in decided)])
    done = _answered(behind, f"they {move}", replace(situation_of(behind), margin=f"{s.margin}  "), None, 1)
    if not done.is_sure:
        return NOTHING
    sound = checked(before, (*decided, *(f"  {line}" for line in done.readings[0].lines)), s.margin)
    return Answer((Reading(sound, done.readings[0].taken),)) if sound else NOTHING


def _splits(plain: str) -> Iterator[tuple[str, str, str]]:
    """Before each joint of the sentence, the first first."""
    for m in re.finditer(r" , (?:and |then |but )?| and (?:then )?| then | but | ~ | : ", plain):
        yield plain[: m.start()].strip(" ,"), plain[m.end() :].strip(" ,"), m[0].strip()
    if re.match(r"(?:if|when|whenever|should|unless|otherwise|else)\b", plain):  # without a comma: before each verb
        for m in re.finditer(r" (?=([a-z]+) )", plain):
            if m[1] in LEMMAS and m[1] not in ("be", "have", "do", "like", "want"):
                yield plain[: m.start()], plain[m.end() :], ","


def _in_two(
    before: str, left: str, right: str, joint: str, s: Situation, who: str | None, depth: int, script: bool
) -> Answer | None:
    if not left or not right:
        return None
    for clause in clauses_of(left, who, s, script):
        first = _one_clause(before, clause, s)
        if not first.readings:
            continue
        lines = first.readings[0].lines
        opened = lines[-1].rstrip().endswith(":")
        behind = before + "".join(f"\n{s.margin}{line}" for line in lines)
        after = situation_of(behind)
        doer = SPECTATOR if clause.who is None and lines[-1].startswith("Spectator") else clause.who
        goes_on = doer if not clause.asked or "," not in joint else None
        second = _answered(behind, right, replace(after, margin=after.opened or s.margin), goes_on, depth + 1)
        if not second.readings or (not opened and second.readings[0].lines[-1].rstrip().endswith(":")):
            continue  # a block that is opened behind what is done has nothing in it
        rests = [
            Reading((*lines, *("  " * opened + line for line in one.lines)), (*first.readings[0].taken, *one.taken))
            for one in second.readings
        ]
        if first.asks:
            return Answer(
                tuple(Reading((*one.lines, *rests[0].lines[len(lines) :])) for one in first.readings), asks=True
            )
        return Answer(tuple(rests), second.asks)
    return None


def _one_clause(before: str, clause: Clause, s: Situation) -> Answer:
    found: list[Reading] = []
    for idiom in IDIOMS:
        for readings in told(idiom, clause.words, s):
            if readings[0][0].startswith(CANNOT):
                return Answer(cannot=readings[0][0].partition(": ")[2])
            for lines in readings:
                made = kinds_of_line.special(lines, clause, s)
                if made and (sound := checked(before, made, s.margin)):
                    found.append(Reading(sound))
            if found:
                return Answer(tuple(found), asks=len(readings) > 1 and len(found) > 1)
    same = _same_with_others(clause, s)
    if same is not None and (sound := checked(before, (same,), s.margin)):
        return Answer((Reading(sound),))
    sound_ones: list[tuple[Candidate, tuple[str, ...]]] = []
    seen: set[tuple[str, ...]] = set()
    for candidate in candidates(clause, s):  # the best first
        if len(sound_ones) > 12 and candidate.score < sound_ones[0][0].score:
            break
        if candidate.lines not in seen and (sound := checked(before, candidate.lines, s.margin)):
            sound_ones.append((candidate, sound))
        seen.add(candidate.lines)
    if not sound_ones:
        return NOTHING
    question = sound_ones[0][0].question
    asks = [one for one in sound_ones if question and one[0].question == question]
    kept = dict.fromkeys(Reading(sound, one.taken) for one, sound in (asks if len(asks) > 1 else sound_ones))
    return Answer(tuple(kept) if len(asks) > 1 else tuple(kept)[:MOST_READINGS], asks=len(asks) > 1)


def _same_with_others(clause: Clause, s: Situation) -> str | None:
    """*So many in the hand, and the rest in the other packet*: what the last line does, with another number and place."""
    if (made := _more(clause, s)) is not None:
        return made
    last = next(
        (
            line
            for line in reversed(s.lines[-6:])
            if {"depth", "count"} & line.values.keys() and line.kind and line.kind.family == "Blocks"
        ),
        None,
    )
    if last is None:
        return None
    many = where = None
    for m in re.finditer(r" (?:in|from|of|with|on|off) ", clause.words):
        said, where = clause.words[: m.start()], place_named(clause.words[m.end() :], s)
        rest = re.fullmatch(r"(?:rest|remainder|others)(?: of (\d+))?", said)
        many = number_said(said, s)
        if rest and s.number and (rest[1] or s.high):
            many = f"{rest[1] or s.high} - {s.number}"
        if many and where:
            break
    slot = next((one for one in ("depth", "count") if one in last.values), None)
    if many is None or where is None or slot is None or last.values.get("choice"):
        return None
    spans = {name: (start, end) for name, _, start, end in last.spans}
    text = last.text
    for name, new in sorted(
        ((slot, many), ("place" if "place" in spans else "from", where)),
        key=lambda one: -spans.get(one[0], (0, 0))[0],
    ):
        if name not in spans:
            return None
        text = text[: spans[name][0]] + new + text[spans[name][1] :]
    return text.strip()


def _more(clause: Clause, s: Situation) -> str | None:
    """*Three more on the same heap*, behind a deal."""
    m = re.fullmatch(
        r"(?P<n>.+?) (?:more|more cards) (?:on|onto|ontop|to|into) (?:same|that|it|them)(?: (?:heap|pile|packet))?",
        clause.words,
    )
    many = number_said(m["n"], s) if m else None
    if many is None or s.dealt_from is None or s.dealt_to is None:
        return None
    return kinds_of_line.by(f"Deal {many} cards from {s.dealt_from} to {s.dealt_to}", clause.who)
