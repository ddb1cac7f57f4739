"""Ways of speaking that come to several sentences, or to one of several: what no single kind of step can declare.

Each has a pattern over the words of a normal clause without its doer, and readings: sentences of the language as the
performer's, with ⟦words⟧ in the place of what the pattern found (resolved as place p, number n, card c, spot s, word w).
More than one reading is a question.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from .amounts import number_said
from .normal import as_read
from .nouns import card_named, place_named
from .pointing import spot_said
from .situation import Situation

CANNOT = "cannot"


@dataclass(frozen=True)
class Idiom:
    pattern: re.Pattern[str]
    readings: tuple[tuple[str, ...], ...]
    where: Callable[[Situation], bool] = lambda s: True
    who: str | None = None
    """who does it, where that goes without saying"""


_GAP = re.compile(r"⟦([pncsw]\d?)⟧")
_GAPS = {
    "p": r"(?P<p{0}>[\w⟨⟩' -]+?)",
    "n": r"(?P<n{0}>[\w -]+?)",
    "c": r"(?P<c{0}>⟨[^⟩]+⟩|[\w' -]+?)",
    "s": r"(?P<s{0}>[\w⟨⟩' -]+?)",
    "w": r"(?P<w{0}>“[^”]+”|[\w]+)",
}


def idiom(
    pattern: str, *readings: str, where: Callable[[Situation], bool] = lambda s: True, who: str | None = None
) -> Idiom:
    plain = re.sub(r"(?<![\\⟦?P<\w])[a-z]{2,}(?![⟧>\w])", lambda m: as_read(m[0]), pattern.replace("on top", "ontop"))
    full = re.sub(r"⟦([pncsw])(\d?)⟧", lambda m: _GAPS[m[1]].format(m[2]), plain)
    return Idiom(re.compile(full), tuple(tuple(one.split(" / ")) for one in readings), where, who)


def told(found: Idiom, words: str, s: Situation) -> Iterator[list[tuple[str, ...]]]:
    """The readings with what was found in them; nothing where it stands for nothing here."""
    match = found.pattern.fullmatch(words)
    if not match or not found.where(s):
        return
    values: dict[str, str] = {}
    for name, text in match.groupdict().items():
        if text is None:
            continue
        kind = name[0]
        value = (
            place_named(text, s) if kind == "p" else number_said(text, s) if kind == "n" else card_named(text, s) if kind == "c"
            else spot_said(text, s) if kind == "s" else text.strip("“”")
        )  # fmt: skip
        if value is None:
            return
        values[name] = value

    def filled(line: str) -> str:
        line = _GAP.sub(lambda m: values[m[1]], line)
        line = line.replace("⟦n-1⟧", str(int(values["n"]) - 1) if values.get("n", "").isdigit() else "n - 1")
        line = line.replace("⟦n+1⟧", str(int(values["n"]) + 1) if values.get("n", "").isdigit() else "n + 1")
        line = line.replace("⟦half⟧", str(s.sizes.get("deck", 52) // 2)).replace(
            "⟦pack⟧", str(s.sizes.get("deck", 52) or 52)
        )
        line = (
            line.replace("⟦number⟧", s.number or "n")
            .replace("⟦told⟧", s.told_pile or "p")
            .replace("⟦theirs⟧", s.their_card or "their card")
        )
        line = line.replace("⟦from⟧", s.dealt_from or "deck").replace("⟦piles⟧", ", ".join(s.piles))
        low, high = 20 * s.sizes.get("deck", 52) // 52, 32 * s.sizes.get("deck", 52) // 52
        return line.replace("⟦about half⟧", f"from {low} to {high}").replace("⟦moved⟧", s.moved_to or "hand")

    # What an idiom may leave out it may also ask for in one of its readings alone.
    whole = [
        reading for reading in found.readings if all(set(_GAP.findall(line)) <= values.keys() for line in reading)
    ]
    if whole:
        yield [tuple(map(filled, reading)) for reading in whole]


def _piled(s: Situation) -> bool:
    return len(s.piles) > 1


def _two(s: Situation) -> bool:
    return len(s.piles) == 2


def _counted(s: Situation) -> bool:
    return s.number is not None


IDIOMS: Sequence[Idiom] = (
    # One of several
    idiom(r"count off ⟦n⟧(?: cards)?(?: (?:to|onto|on) table)?", "Deal ⟦n⟧ cards from deck to table", "Count ⟦n⟧ cards from deck to table, each under the last", "Cut off ⟦n⟧ cards of deck to table"),
    idiom(r"(?:turn|flip) top ⟦n⟧(?: cards)? over|(?:turn|flip) over top ⟦n1⟧(?: cards)?", "Turn over the top ⟦n⟧ cards of deck as a block", "Cut off ⟦n⟧ cards of deck to hand / Turn every card of hand over where it lies / Put hand on deck"),
    idiom(r"cut (?:pack|deck|cards)? ?(?:in|into) (?:half|2|2 halves|2 parts|2 packets)", "Cut off ⟦half⟧ cards of deck to table", "Cut off n cards of deck, n ⟦about half⟧, to table"),
    idiom(r"reverse ⟦p⟧", "Turn ⟦p⟧ over", "Deal size of ⟦p⟧ cards from ⟦p⟧ to table / Put table on ⟦p⟧", where=lambda s: True),
    idiom(r"(?:flip|turn) ⟦p⟧(?: 's)? cards over|(?:flip|turn) over cards of ⟦p1⟧", "Turn ⟦p⟧ over", "Turn every card of ⟦p⟧ over where it lies"),
    idiom(r"(?:sandwich|put|place|drop) ⟦p⟧ between (?:2 )?(?:heaps|piles|packets|halves|pile|heap)", "Put ⟦p⟧ on pile 1 / Put pile 2 on pile 1", "Put ⟦p⟧ on pile 2 / Put pile 1 on pile 2", where=_two),
    idiom(r"(?:collect|gather|gather up|pick up|assemble) (?:piles|heaps|packets|pile|heap|packet|stack|them)(?: up)? in order", "Gather the piles from left to right, each on the last", "Gather the piles from left to right, each under the last", where=_piled),
    idiom(r"(?:collect|gather|gather up|pick up|put|assemble|stack) (?:piles|heaps|packets|pile|heap|packet|stack|them)(?: up| together)*(?: from)? left to right", "Gather the piles from left to right, each on the last", "Gather the piles from left to right, each under the last", where=_piled),
    idiom(r"(?:outjog|upjog|jog) (?:every other|alternate|every 2nd) cards? ?,? (?:(?:and )?strip them out )?(?:and )?(?:put|drop|place) (?:them )?(?:ontop|on top)", "Push every second card out of deck and put the first ones on top", "Push every second card out of deck and put the second ones on top"),
    idiom(r"(?:outjog|upjog|jog) (?:every other|alternate|every 2nd) cards? (?:begin|start) with (?:1st|top card) ?,? (?:(?:and )?strip them out )?(?:and )?(?:put|drop|place) (?:them )?(?:ontop|on top)", "Push every second card out of deck and put the first ones on top"),
    idiom(r"(?:eliminate|discard|throw away|deal away) every (?:2nd|other) card (?:till|until) (?:you have )?1 (?:card )?(?:is )?left|(?:eliminate|discard) every (?:2nd|other) card (?:till|until) (?:only )?(?:a single|1)(?: card)? (?:is left|remain|remains)", "Deal ⟦moved⟧ down and under to table", "Deal ⟦moved⟧ under and down to table", where=lambda s: s.moved_to is not None),
    idiom(r"shuffle (?:2 )?(?:heaps|piles|packets|halves|heap|pile|packet) together", "Riffle pile 1 into pile 2", "Put pile 1 on pile 2 / Shuffle pile 2", where=_two),
    idiom(r"(?:turn up|turn over|look at|show|turn) card (?:at which )?they stop(?: at| on)?", "Turn the last card dealt face up", "Turn the next card face up", where=lambda s: s.dealt_to is not None),
    idiom(r"deal down to (\w+) card and (?:have it remember|remember it|they remember it|look at it)", "", where=lambda s: False),
    idiom(r"(?:hand|give|take|pass) (?:them |her )?card at (?:that|their) number", "Spectator takes the ⟦number⟧th card of deck to hand: their card", "Spectator takes the card at position ⟦number⟧ + 1 of deck to hand: their card", where=_counted),
    idiom(r"(?:look at|remember|note|see|peek at|look) (?:card )?(?:at )?(?:card )?they cut (?:to|at)(?: and remember it)?", "Spectator remembers the bottom card of hand: their card", "Spectator remembers the top card of deck: their card", where=lambda s: s.has("hand")),
    idiom(r"(?:gather|collect|pick|sweep|scoop)(?: up)? ⟦p⟧", "Put ⟦p⟧ on deck", "Put ⟦p⟧ under deck"),
    idiom(r"(?:point to|point at|touch|indicate|tap|lay a finger on|put a finger on|put their finger on) (?:any card|a card|any 1|1|any|1 card|any 1 card)(?: of (?:them|these|those|cards)| (?:of|in) row| of \d+(?: cards)?)?", "point-to-one", who="spectator"),
    # Several sentences
    idiom(r"(?:swap|exchange) top and bottom cards?(?: of deck| of pack)?|(?:swap|exchange) top card and bottom card", "Take the top card of deck to aside / Take the bottom card of deck to table / Put table on deck / Put aside under deck"),
    idiom(r"name any card they like(?: ,)?(?: out loud)?|name any card(?: at all)?(?: out loud)?|name a card|call out any card|name a card out loud", "Spectator thinks of a card in deck: their card / Spectator names their card", who="spectator", where=lambda s: s.their_card is None),
    idiom(r"force (?:top card|a card|⟦c⟧|it)(?: on (?:them|her))?", "Assumed: a force / Spectator takes the top card of deck to hand: their card"),
    idiom(r"(?:give (?:pack|deck|cards|it) )?(?:a )?false (?P<w>shuffle|cut|deal|count)(?: (?:pack|deck|cards))?(?: here)?(?: ,)?(?: keep everything in order| keep order| leave everything in order)?", "Assumed: a false ⟦w⟧"),
    idiom(r"(?:false|falsely)[- ](?P<w>shuffle|cut)(?: (?:pack|deck|cards))?", "Assumed: a false ⟦w⟧"),
    idiom(r"deal ⟦n⟧(?: cards)? from bottom(?: of deck| of pack)?", "Repeat ⟦n⟧ times: /   Take the bottom card of deck to table"),
    idiom(r"deal top card face up ,? next face down ,? and so on for (?P<n>\d*[02468])(?: cards)?", "deal-alternately"),
    idiom(r"(?:run|deal|count|thumb off|peel off) ⟦n⟧(?: cards)? and (?:throw|drop|put|toss) (?:rest|balance|remainder) (?:ontop|on top|on them|on it)", "Deal ⟦n⟧ cards from deck / Drop the rest on top"),
    idiom(r"bring bottom card of ⟦p⟧ to top|(?:move|transfer|shift|put|place) bottom card of ⟦p1⟧ (?:to|on) (?:top|it)", "Cut ⟦p⟧ at size of ⟦p⟧ - 1 and complete the cut"),
    idiom(r"(?:thumb off|thumb|move|transfer|put|duck|deal|slip|pass|shift) (?:top card|a card|1 card|1)(?: from top)? (?:to bottom|under|underneath)(?: of deck| of pack)? (?:for|with) (?:every|each) letter of ⟦w⟧", "Cut deck at letters of “⟦w⟧” and complete the cut"),
    idiom(r"deal a card for (?:each|every) letter of (?:their|her)(?: first| own| last)? name", "Spectator secretly chooses a number k from 3 to 10 / Spectator deals k cards from deck", who="spectator"),
    idiom(r"(?:toss|flip|spin) a coin|coin is (?:toss|flip)", "Chance decides on a number n from 1 to 2"),
    idiom(r"(?:roll|throw|cast) a (?:die|dice)|a die is (?:roll|throw)|roll (?:die|dice)|throw die", "Chance decides on a number n from 1 to 6"),
    idiom(r"(?:roll|throw|cast) 2 dice(?: (?:and|,) .*)?|2 dice (?:are|be) (?:throw|roll)(?: and .*)?", "Chance decides on a number n from 2 to 12, each as likely as min(n - 1, 13 - n)"),
    idiom(r"(?:choose|pick|name|settle on|select|think of|decide on) a suit(?: ,)?(?: (?:silently|secretly|without a word))?", "Spectator secretly chooses a number s from 1 to 4", who="spectator"),
    idiom(r"take it that all their choices (?:are|be) equally likely|(?:assume|suppose|say)(?: that)? (?:all|every) choices? (?:are|is) equally likely|all (?:their )?choices are equally likely", "Odds: every choice is equally likely"),
    idiom(r"(?:shuffle|mix) (?:cards|deck|pack)? ?about on table and square (?:them|it) up again|(?:smear|wash|spread|swirl) cards (?:about|around)(?: on table)?(?: and square (?:them|it) up(?: again)?)?", "Shuffle deck"),
    idiom(r"do (?:this|it|that|same) (?:twice|2 times)", "again", "again twice"),
    idiom(r"(?:do|repeat)(?: all)?(?: (?:this|it|that|same))? (?:twice more|2 more times|2 times more|twice again)", "round 2"),
    idiom(r"(?:do|repeat)(?: all)?(?: (?:this|it|that|same))? (?:thrice more|3 more times|3 times more)", "round 3"),
    idiom(r"and again|again|once more|repeat|(?:repeat|do) (?:that|this|it|same)(?: again)?|same again|do it again", "again"),
    idiom(r"take off exactly half|exactly half is cut off|cut off exactly half", "Cut off ⟦half⟧ cards of deck to table"),
    idiom(r"(?:make|build|lay|deal|form) (?:a )?(?P<n>\d+) by (?P<n1>\d+)(?: square| grid| block)?(?: ,)?(?: (?:deal )?row by row(?: from (?:the )?left)?)?", "deal-square"),
    idiom(r"look at ⟦s⟧ ,? ?(?:and )?bury it(?: in (?:middle|deck|middle of deck))?", "Take ⟦s⟧ to hand: their card / Insert hand into deck"),
    idiom(r"(?:shuffle|mix) ⟦p⟧ into (?:deck|rest)", "Put ⟦p⟧ on deck / Shuffle deck"),
    idiom(r"deal down to (?P<n>\d+)(?:st|nd|rd|th) card and (?:have it remember|remember it|they remember it|look at it|they look at it)", "Deal ⟦n⟧ cards from deck / Spectator remembers the last card dealt: their card", "Deal ⟦n-1⟧ cards from deck / Spectator remembers the next card: their card"),
    idiom(r"⟦c⟧ (?:be|is|lie|lies) ⟦n⟧ cards? (?:after|below|under|beneath|behind|past|further than) ⟦c1⟧", "Cut deck to bring ⟦c1⟧ to the top / Ends with: the card at position ⟦n+1⟧ of deck is ⟦c⟧"),
    idiom(r"⟦c⟧ (?:be|is|lie|lies) (?P<n>\d+)(?:st|nd|rd|th) (?:card )?(?:after|below|under|beneath|behind|past) ⟦c1⟧", "Cut deck to bring ⟦c1⟧ to the top / Ends with: the card at position ⟦n+1⟧ of deck is ⟦c⟧"),
    # What no sentence says
    idiom(r"(?:arrange|set|stack|put|order) (?:whole |full )?deck (?:so that they are |in )?(?:red , black , red.*|red and black alternately|alternately red and black|alternating colours)|(?:whole )?deck alternat\w+ (?:red and black|in colour)", "Arrange the pack red, black in turn"),
    idiom(r".*any (?!4\b)\w+ of a kind.*", CANNOT + ": cards of the set-up that go together but whose value is left open: name the cards"),
    idiom(r"(?:lay|deal|set|arrange)(?: out)? (?P<n>\d+) cards in a (?:circle|ring)(?: ,?.*hours of (?:a )?clock.*| like a clock(?: face)?)?", "Lay ⟦n⟧ cards of deck in a ring"),
    idiom(r"(?:replace|put) it (?:back )?on ?top(?: of deck)? and (?:hold|keep|get) a break (?:under|below|beneath) it", "Put hand on deck / Hold a break under the top card of deck: BREAK"),
    idiom(r".*\bpinky\b.*|.*\binjog\b.*|.*\b(?:palm|palms|double lift|crimp)\b.*", CANNOT + ": a break, a jog or another hold of the hand: say where the cards lie"),
    idiom(r"name any (?!card|number)\w+ and spell (?:it|them)(?: ,? ?(?:deal|with) a card (?:a|for each|per) letter)?|spell (?:any|a) (?:word|animal|city|name|fruit|country|colour) of their (?:own )?choice(?: ,? ?(?:deal|with) a card (?:a|for each|per) letter)?", "Spectator names a word, letters w from 3 to 12 / Spectator deals w cards from deck to table", who="spectator"),
    idiom(r".* or else .* is theirs", CANNOT + ": which of two it is: claim that it is one or the other"),
    idiom(r"if they (?:hesitate|refuse|look|seem|are nervous|do not want|object|laugh|ask|forget|insist|get it wrong)\b.*|if (?:anybody|anyone|people|somebody) (?:object|ask|doubt|laugh).*", CANNOT + ": a condition that is about behaviour: write what happens with numbers or cards"),
)  # fmt: skip
