"""Who does it: a normal clause taken apart into its doer, its secrecy and what is done, whatever comes first in it.

they deal 10 cards                      → the spectator: deal 10 cards
have them cut deck                      → the spectator: cut deck
deck is cut and cut complete            → left open: cut deck and cut complete
while you look away , they deal …       → the spectator, secretly: deal …
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ..language.templates import PERFORMER, SPECTATOR
from .lexicon import LEMMAS
from .situation import Situation


@dataclass(frozen=True)
class Clause:
    words: str
    who: str | None
    """None: it is left open, as in *the pack is cut*"""
    secretly: bool = False
    asked: bool = False
    """the spectator is asked or let"""


_AWAY = re.compile(
    r"^(?:while (?:you|i) look away|with (?:your|my) back turn|behind (?:your|my) back|secretly|silently|quietly|without a word|unseen|in secret|count down silently|privately|without letting you see)\b ?,? ?"
)
_FRONT = re.compile(
    r"^(?:while (?:you|i|we) (?:spread|fan|riffle through|run through|thumb through|deal through) (?:cards|deck|them)(?: face (?:up|down))? ,?|and|so (?=they|you|i\b|we)|but|from start there be|there be \d+ move :|there be|after that|after this|afterwards|next ,|when (?:all|they) (?:are|have|be) (?:all )?(?:deal|do|done)\b ?,?|here|at this point|this time|meanwhile|from start|at end|in end|as you can see|you see|"
    r"again|before (?:we|you) (?:begin|start)(?: ,)?|beforehand|however .+? ,|of (?:\d+|those|these)(?: that be left| left| that remain)?(?: ,)?|you (?:will )?see that|beforehand(?: ,)?|to begin|to begin with|to start with|first|1st|lastly|last of all|that do|this do|on table) ?,? (?=\w)"
)
_ASK = re.compile(
    r"^(?:please )?(?:have|let|ask|get|invite|make|tell|allow|want|need|request|instruct|persuade|may) (?:for )?(?:a |an )?(?:another )?(?:them|her|they|people|1 of them|someone)\b(?: to)? (?=\S)"
)
_THEY = re.compile(
    r"^(?:a |another |1 of |second |any )?(?:they|everyone|everybody|people)(?! who)(?: \d)? (?:who \w+ )?(?:may |can |should |must |will |shall |might |is to |are to |have to |do |be asked to |is asked to |get to |be to )?"
)
_I = re.compile(
    r"^(?:i|you|we|performer|magician)(?! 's) (?:may |can |should |must |will |shall |are to |have to |do |be to )?(?=\S)"
)
_BE = r"(?:is|are|be|get|gets|was|were|has been|have been|should be|may be|must be|can be|will be|being)"
_VERB = "|".join(sorted(LEMMAS, key=len, reverse=True))
_PASSIVE = re.compile(
    rf"^(?P<what>.+?) {_BE} (?:to be )?(?P<how>(?:freely|secretly|silently|quietly|all|both|each|perfectly|merely) )?(?P<verb>{_VERB})\b(?P<rest>.*)$"
)
_FRONTED = re.compile(
    r"^(?P<where>(?:from|of|out of|into|onto|on|in|to|off) (?:(?!\b(?:deal|count|lay|cut|lift|take|put|draw|spell|turn|remove|pull)\b).)+?) ,? ?(?P<rest>(?:(?:they|i|you|we) )?(?:deal|count|lay|cut|lift|take|put|draw|spell|turn|remove|pull)\b.*)$"
)
"""*from the hand deal five*: the place first"""
_BY = re.compile(r" by (?:a |an )?(?P<doer>they|them|her|you|me|i|performer|magician)(?= |$)")
_ADVERBS = re.compile(r"^(?:secretly|silently|quietly|freely|just) ")


def clauses_of(plain: str, who: str | None, s: Situation, script: bool = False) -> Iterator[Clause]:
    """Every way to take the clause apart, the likeliest first. `who`: of the clause before, where there was one."""
    words, secretly = plain.strip(" ,"), False
    for _ in range(3):
        if (m := _AWAY.match(words)) is not None:
            words, secretly = words[m.end() :], True
        elif (m := _FRONT.match(words)) is not None:
            words = words[m.end() :]
    words = words.strip(" ,")
    if (by_them := re.search(r" ,? ?by (?:they|them)$", words)) and not _PASSIVE.match(words):
        words, who = words[: by_them.start()].strip(" ,"), SPECTATOR
    if not words:
        return
    if (m := _FRONTED.match(words)) is not None:
        yield from clauses_of(f"{m['rest']} {m['where']}", who, s, script)
    if (m := re.match(r"^(?:let|may|have) (?=.+ be .+)", words)) is not None and _PASSIVE.match(words[m.end() :]):
        yield from clauses_of(words[m.end() :], who or SPECTATOR, s, script)
    if (
        m := re.match(r"^(?:ask|find out|inquire)(?: them)? (?=which|how many|what|for|in which)", words)
    ) is not None:
        yield from _active(words[m.end() :], SPECTATOR, secretly, asked=True)
        return
    if (m := _ASK.match(words)) is not None and not re.match(r"tell (?:them|her) (?:that|about)", words):
        yield from _active(words[m.end() :], SPECTATOR, secretly, asked=True)
        return
    if (
        m := re.match(
            r"^(?:have|get|see) (?P<what>.+) (?:merely |then )?(?P<verb>" + _VERB + r")\b(?P<rest>.*)$", words
        )
    ) is not None and not words.startswith("have look"):
        yield Clause(f"{m['verb']} {m['what']}{m['rest']}".strip(), SPECTATOR, secretly, asked=True)
    if (m := _THEY.match(words)) is not None and m.end() < len(words):
        yield from _active(words[m.end() :], SPECTATOR, secretly)
        yield Clause(words, None, secretly)
        return
    if (m := _I.match(words)) is not None:
        yield from _active(
            words[m.end() :], SPECTATOR if script and words.startswith("you ") else PERFORMER, secretly
        )
        yield Clause(words, None, secretly)
        return
    if (m := _PASSIVE.match(words)) is not None:
        rest, doer = m["rest"], who
        if (by := _BY.search(rest)) is not None:
            doer = SPECTATOR if by["doer"] in ("they", "them", "her") else PERFORMER
            rest = rest[: by.start()] + rest[by.end() :]
        hidden = secretly or (m["how"] or "").strip() in ("secretly", "silently", "quietly")
        yield Clause(f"{m['verb']} {m['what']}{rest}", doer, hidden)
        for joint in ("off", "out", "up", "over", "back", "at", "of", "to"):  # the particle belongs to the verb
            if rest.startswith(f" {joint}"):
                yield Clause(f"{m['verb']} {joint} {m['what']}{rest[len(joint) + 1 :]}", doer, hidden)
    yield from _active(words, SPECTATOR if script and who is None else who, secretly)


def _active(words: str, who: str | None, secretly: bool, asked: bool = False) -> Iterator[Clause]:
    while (m := _ADVERBS.match(words)) is not None:
        secretly = secretly or m[0].strip() in ("secretly", "silently", "quietly")
        words = words[m.end() :]
    yield Clause(words, who, secretly, asked)
