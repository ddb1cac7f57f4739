"""Lines carried out in order: repetitions, cases, what is learned on the way."""

from __future__ import annotations

import copy
from collections.abc import Callable, Mapping
from dataclasses import replace

from .claims_by_sort import (
    ends_alternating,
    ends_every_sort,
    ends_so_many_sort,
    ends_sort,
    ends_sort_together,
    ends_spot_like,
    ends_spot_sort,
    ends_spots_together,
    ends_unlike,
)
from .dealing import (
    count_down,
    count_to,
    count_under,
    deal,
    deal_each,
    deal_others,
    deal_piles,
    deal_to_stop,
    drop_rest,
    lay_grid,
    narrow,
    put_dealt,
    spell,
    spell_name,
    spell_under,
)
from .deciding import (
    chance,
    choose_number,
    choose_of_words,
    choose_pile,
    choose_values,
    choose_word,
    piles_beside,
    remember,
    show,
    take_any,
    take_card,
    take_from,
    think_of,
    which_pile,
)
from .endings import (
    compared,
    ends_alike,
    ends_at,
    ends_beside,
    ends_block,
    ends_columns,
    ends_equal,
    ends_facing,
    ends_groups,
    ends_in,
    ends_in_order,
    ends_in_row,
    ends_mate,
    ends_number,
    ends_one_of,
    ends_pairs,
    ends_parity,
    ends_reversed,
    ends_same,
    ends_so_many_facing,
    ends_together,
    ends_told,
    ends_with,
    ends_without,
    guard,
    is_ending,
    is_such,
    odds_of,
    together,
)
from .handling import (
    cut,
    cut_off,
    cut_to,
    insert,
    note_order,
    put_heap,
    raise_bottom,
    shuffle,
    swap,
    take_bottom,
    take_mate,
    turn_block,
    turn_card,
    turn_each,
    turn_over,
)
from .layouts import (
    ends_each_line,
    ends_in_column,
    ends_line_sort,
    go,
    lay_ring,
    spread,
    square_up,
    which_line,
)
from .mixing import down_under, faro, haphazard, klondike, overhand, reverse_faro, riffle, riffle_into
from .piles import every_order, gather_any, gather_order, gather_side, gather_slot, keep_piles, new_pile
from .set_up import (
    arrange_in_blocks,
    arrange_in_turn,
    pack,
    pack_cyclic,
    pack_in_order,
    place_card,
    place_extra,
    place_four,
    place_several,
    predict,
    predict_card,
    predict_on_back,
)
from .single_cards import (
    cut_at_card,
    deal_blocks,
    deal_bottom,
    hold_break,
    lower_top,
    reckon,
    swap_cards,
    take_out,
    take_side,
    turn_some,
)
from .table import CannotGoOn, Finished, Json, LeftLoop, Table


def until_out(t: Table, s: Json) -> None:
    while t.heap(s["place"]):
        before = len(t.heap(s["place"]))
        if not _round(t, s):
            return
        if len(t.heap(s["place"])) >= before:
            raise CannotGoOn


def as_long_as(t: Table, s: Json) -> None:
    for _ in range(1000):
        if not compared(t, s):
            return
        if not _round(t, s):
            return
    raise CannotGoOn


def claims_of(s: Json) -> tuple[list[Json], bool]:
    """(the claims a line holds, whether all of them must be so)"""
    if "claim" in s:
        return [s["claim"]], True
    ((how, parts),) = s["claims"].items()
    return parts, how == "and"


def know_the_cards(t: Table, s: Json) -> None:
    for asked in claims_of(s)[0] if "claim" in s or "claims" in s else [s]:
        for name in (asked.get("card"), asked.get("other"), *asked.get("cards", [])):
            if isinstance(name, str):
                t.must_know(name)


def so(t: Table, s: Json) -> bool:
    """Whether what the line asks is so; every part is asked."""
    parts, whole = claims_of(s)
    kept, t.claims = t.claims, []
    for part in parts:
        MEANINGS[part["step"]](t, part)
    found, t.claims = t.claims, kept
    return all(found) if whole else any(found)


def ends_several(t: Table, s: Json) -> None:
    t.claims.append(so(t, s))


def answer(t: Table, s: Json) -> None:
    truth = int(so(t, s))
    t.numbers[s["name"]] = truth if s["how"] == "truly" else t.choose([truth, 1 - truth])


def make_sure(t: Table, s: Json) -> None:
    t.ending = True  # nobody needs to see or to know it
    if not so(t, s):
        raise CannotGoOn


def while_so(t: Table, s: Json) -> None:
    know_the_cards(t, s)
    for _ in range(1000):
        if not so(t, s) or not _round(t, s):
            return
    raise CannotGoOn


def for_each(t: Table, s: Json) -> None:
    names = [t.where(place) for place in s["places"]]
    orders = every_order([str(i) for i in range(len(names))])
    order = orders[t.choose(list(range(len(orders)))) if "order" in s else 0]
    for turn, i in enumerate(order):
        t.turns.append(turn + 1)
        t.aliases[s["name"]] = names[int(i)]
        goes_on = _round(t, s)
        t.turns.pop()
        if not goes_on:
            break
    t.aliases.pop(s["name"], None)


def demonstrating(t: Table, s: Json) -> None:
    run_lines(t, s["body"])


def end_here(t: Table, s: Json) -> None:
    t.ended_here = True


def start_again(t: Table, s: Json) -> None:
    t.again = True


def _round(t: Table, s: Json) -> bool:
    """Carries out the lines of a loop once; whether it goes on."""
    depth = len(t.turns)
    try:
        run_lines(t, s["body"])
    except LeftLoop:
        del t.turns[depth:]
        return False
    return True


def leave_loop(t: Table, s: Json) -> None:
    raise LeftLoop


def repeat(t: Table, s: Json) -> None:
    times = t.value(s["times"])
    if times < 0:
        raise CannotGoOn
    for turn in range(times):
        t.turns.append(turn + 1)
        goes_on = _round(t, s)
        t.turns.pop()
        if not goes_on:
            break


def _after(t: Table, lines: list[Json]) -> list[Table | None]:
    """The tables to which these lines can lead, whatever is chosen in them; None where they cannot be gone on with."""
    found: list[Table | None] = []
    script: tuple[int, ...] | None = ()
    while script is not None:
        sizes: list[int] = []
        taken: list[int] = []
        asked = script

        def decide(options: list[int]) -> int:
            index = asked[len(taken)] if len(taken) < len(asked) else 0  # noqa: B023
            sizes.append(len(options))  # noqa: B023
            taken.append(index)  # noqa: B023
            return options[index]

        now = copy.deepcopy(replace(t, decide=decide))
        try:
            run_lines(now, lines)
            found.append(now)
        except CannotGoOn:
            found.append(None)
        while taken and taken[-1] + 1 == sizes[len(taken) - 1]:
            taken.pop()
        script = (*taken[:-1], taken[-1] + 1) if taken else None
    return found


reached_before: dict[object, list[Table | None]] = {}
"""(line, options taken so far) → the tables that any number of rounds can lead to, for the routine at hand"""


def as_often(t: Table, s: Json) -> None:
    """One choice among all tables that any number of rounds can lead to; or so many rounds, one after the other."""
    if t.rounds is not None:
        body = [line for line in s["body"] if "step" in line]
        for _ in range(t.choose(list(range(t.rounds + 1)))):
            run_lines(t, [body[t.choose(list(range(len(body))))]] if "moves" in s else body)
        return
    key = id(s), tuple(t.taken)
    if key not in reached_before:
        reached_before[key] = _all_reached(t, s)
    tables = reached_before[key]
    chosen = copy.deepcopy(tables[t.choose(list(range(len(tables))))])
    if chosen is None:
        raise CannotGoOn
    t.__dict__.update({k: v for k, v in chosen.__dict__.items() if k not in ("decide", "taken")})


def _all_reached(t: Table, s: Json) -> list[Table | None]:
    body = [line for line in s["body"] if "step" in line]
    moves = [[line] for line in body] if "moves" in s else [body]
    reached: dict[object, Table | None] = {_all_that_lies(t): copy.deepcopy(t)}
    waiting = list(reached.values())
    while waiting:
        now = waiting.pop()
        for move in moves:
            for new in _after(now, move) if now else []:
                known = new and _all_that_lies(new)
                if known not in reached:
                    reached[known] = new
                    waiting.append(new)
    return list(reached.values())


def _all_that_lies(t: Table) -> object:
    return tuple(sorted(t.snapshot().items())), tuple(sorted(t.shown))


def _case(t: Table, body: list[Json]) -> None:
    run_lines(t, body)
    if any(is_ending(line) for line in body if "step" in line):
        raise Finished


def nothing(t: Table, s: Json) -> None:
    pass


MEANINGS: Mapping[str, Callable[[Table, Json], None]] = {
    f.__name__: f
    for f in (
        pack, place_card, choose_number, choose_values, choose_pile, think_of, take_card, take_from, remember, show, which_pile,
        piles_beside, deal, lay_grid, ends_in_row, spell, spell_under, count_to, count_under, put_dealt, drop_rest, put_heap, cut_off, take_bottom, raise_bottom, swap, cut,
        cut_to, turn_block, turn_over, turn_each, insert, turn_card, deal_piles, gather_any, gather_side, gather_slot, gather_order,
        repeat, as_often, ends_with, ends_at, ends_without, ends_in, ends_one_of, ends_parity, ends_same, ends_mate, ends_facing, ends_so_many_facing, ends_alike, ends_equal, place_extra, deal_to_stop,
        faro, reverse_faro, klondike, down_under, ends_beside, ends_reversed, pack_in_order, place_several, chance,
        predict, spell_name, count_down, deal_others, deal_each, narrow, new_pile, keep_piles, overhand, haphazard, riffle, shuffle,
        take_mate, until_out, as_long_as, for_each, demonstrating, start_again, end_here, leave_loop, take_any, ends_together, ends_number, ends_told,
        ends_columns, ends_pairs, ends_groups, odds_of, riffle_into, note_order, ends_in_order, guard,
        predict_on_back, predict_card, ends_sort, ends_spot_sort, ends_so_many_sort, ends_every_sort, ends_spots_together,
        ends_spot_like, ends_alternating, ends_unlike, ends_several, make_sure, while_so,
        reckon, lower_top, swap_cards, turn_some, take_out, cut_at_card, take_side, deal_bottom, deal_blocks,
        hold_break, choose_word, choose_of_words, answer, ends_block, ends_sort_together, arrange_in_turn, arrange_in_blocks, place_four, pack_cyclic, lay_ring, spread, go, square_up, which_line, ends_in_column, ends_line_sort, ends_each_line,
    )
} | {"make_sure_several": make_sure, "while_several": while_so, "let": reckon} | dict.fromkeys(
    ("title", "note", "credit", "assumed", "tell", "whisper", "if_compared", "if_parity", "if_card", "if_alike", "if_so", "if_several", "otherwise", "never_shows",
     "never_odd", "name_aloud", "odds_model"), nothing
)  # fmt: skip


UNSEEN = {"assumed", "whisper", "predict_card", "repeat", "as_often", "choose_number", "choose_values", "choose_pile", "tell", "name_aloud", "chance",
          "until_out", "as_long_as", "while_so", "while_several", "for_each", "demonstrating", "start_again", "end_here", "leave_loop"}  # fmt: skip
"""lines during which nothing is done on the table"""


def performer_acts(line: Json) -> bool:
    """Who acts is said by the line; of a block, by what is done in it."""
    inner = [one for one in line.get("body", []) if "step" in one]
    if "body" in line:
        return not inner or any(map(performer_acts, inner))
    return is_ending(line) or (line["who"] == "performer" if "who" in line else line["step"] not in SPECTATORS)


def learn(t: Table, line: Json) -> None:
    """What the performer learns in a line: numbers that are not secret, cards that are his own or named aloud."""
    secret = line.get("secretly") or line.get("verb") == "notes"
    if line["step"] in ("tell", *NEW_NUMBERS) and not (secret and line["step"] != "tell"):
        for slot in ("number", "choice", "name", "names"):
            value = line.get(slot)
            if isinstance(value, dict) and "low" in value:
                t.knows.add(value["name"])
            elif isinstance(value, list):
                t.knows |= set(value)
            elif isinstance(value, str):
                t.knows.add(value)
    if line["step"] == "name_aloud" or (line["step"] in ("remember", "take_from") and t.performer and "card" in line):
        t.knows.add(line["card"])
    if line["step"] == "take_mate" and t.performer:
        t.knows.add(line["name"])


NEW_NUMBERS = ("choose_number", "choose_values", "choose_pile", "chance", "predict", "deal_to_stop", "cut_off", "cut",
               "which_pile", "piles_beside", "count_to", "count_down", "reckon", "let", "go", "which_line", "choose_word", "choose_of_words", "answer")  # fmt: skip


SPECTATORS = ("choose_number", "choose_values", "choose_pile", "tell", "name_aloud", "think_of", "take_card", "which_pile",
              "piles_beside", "narrow", "keep_piles", "chance", "go", "which_line", "choose_word", "choose_of_words", "answer")  # fmt: skip


CASES: dict[str, Callable[[Table, Json], bool]] = {
    "if_compared": compared,
    "if_parity": lambda t, s: t.value(s["number"]) % 2 == (s["parity"] == "odd"),
    "if_card": is_such,
    "if_alike": together,
    "if_so": so,
    "if_several": so,
}


SET_UP = (
    "pack",
    "pack_in_order",
    "arrange_in_turn",
    "arrange_in_blocks",
    "place_four",
    "pack_cyclic",
    "place_card",
    "place_several",
    "place_extra",
    "predict_on_back",
)
"""what is so before anything is done, wherever it is written"""


def _mark(t: Table, done: Json) -> None:
    """Keeps what lies where behind a step."""
    heaps = {name: tuple(card.number for card in heap) for name, heap in t.heaps.items() if heap}
    if t.depth == 1:
        t.marks[done["nth"]] = len(t.taken), heaps
    if "body" not in done:
        t.came_by[done["nth"], tuple(t.turns)] = heaps


def run_lines(t: Table, lines: list[Json]) -> None:
    t.depth += 1
    try:
        _run_lines(t, lines)
    finally:
        t.depth -= 1


def _run_lines(t: Table, lines: list[Json]) -> None:
    taken = False
    before: Json | None = None
    for line in [*(line for line in lines if "step" in line), None]:
        if before is not None and t.marked:
            _mark(t, before)
        if line is None:
            return
        before = line
        step = line["step"]
        t.step = line["nth"]
        t.ending = is_ending(line)
        t.performer = performer_acts(line)
        learn(t, line)
        if step in CASES:
            know_the_cards(t, line)
            taken = CASES[step](t, line)
            if taken:
                _case(t, line["body"])
        elif step == "otherwise":
            if not taken:
                _case(t, line["body"])
        else:
            before_it = len(t.claims)
            MEANINGS[step](t, line)
            if t.ending:
                t.reached.add(line["nth"])
                if len(t.claims) > before_it:
                    t.judged[line["nth"]] = t.judged.get(line["nth"], True) and all(t.claims[before_it:])
            if step in SET_UP:
                continue
            if t.again or t.ended_here:
                raise Finished
            if not line.get("shielded") and not is_ending(line) and step not in UNSEEN:
                t.look_around(list(t.heaps))
            if t.logged:
                t.log.append(t.snapshot())
