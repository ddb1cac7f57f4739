"""Taking out of a state what nobody asks for any more, so that more states are equal."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cache, lru_cache

from ..cards import DOWN, FACE_UP, INDIFFERENT, MAX_CARDS, TOKEN, UP, index_of
from .program import Cells, Dead, Program

_BLANK = [bytes(size) for size in range(MAX_CARDS + 1)]


@cache
def only(token: int) -> bytes:
    """The translation table that makes all cards but this one indifferent."""
    return bytes(byte if byte & TOKEN == token else byte & FACE_UP for byte in range(256))


def forgets(program: Program, dead: Dead) -> Callable[[Cells], None] | None:
    """What takes out of a state what is dead, and which of what cannot be told apart; None where nothing is."""
    if not dead and not program.interchangeable:
        return None
    heaps = [index for index in dead.cells if program.cells[index].is_place]
    numbers = [index for index in dead.cells if not program.cells[index].is_place]
    blanked, faceless = dead.cards, dead.faces
    faces = program.faces
    store = faces if faces and dead.counts and faces.cell not in dead.cells else None
    names = {program.card_cells[name]: name for name in program.own_tokens}
    unnamed = [
        (cell, program.own_tokens[names[cell]], program.face_cells.get(names[cell]))
        for cell in dead.cells
        if cell in names
    ]
    every_name, places = list(program.card_cells.values()), [index for index, _ in program.places()]
    followed = program.target if program.keeps_target and (heaps or blanked) else None
    without_faces = program.faces.without_faces if program.faces else b""
    rename = _renaming(program, places)

    # What is not changed here shows the same faces before and after.
    changed = {*dead.cells, *dead.cards, *dead.faces}
    where_faces_are = [cell for cell in (*places, *program.face_cells.values()) if unnamed or cell in changed]
    store = store if where_faces_are else None

    def forget(cells: Cells) -> None:
        shown = store.among([cells[index] for index in where_faces_are]) if store else b""
        for name, token, face in unnamed:
            if cells[name] == token and sum(cells[other] == token for other in every_name) == 1:
                _no_name_any_more(cells, token, face, places)
        one = program.token_of(cells, followed) if followed else None
        for index in numbers:
            cells[index] = None
        for index in heaps:
            at = index_of(cells[index], one) if one and cells[index] else -1
            # Where the followed card lies in a heap that nobody asks for is told by the cards above it.
            cells[index] = cells[index][: at + 1].translate(only(one)) if one and at >= 0 else b""
        for index in blanked:
            cells[index] = cells[index].translate(only(one)) if one else _BLANK[len(cells[index])]
        for index in faceless:
            cells[index] = cells[index].translate(without_faces)
        if store and shown:
            store.keep(cells, shown, store.among([cells[index] for index in where_faces_are]))
        if rename:
            rename(cells)

    return forget


def _renaming(program: Program, places: Sequence[int]) -> Callable[[Cells], None] | None:
    """Gives pairs that nobody tells apart anew, in the order in which they lie: one state stands for all of them."""
    pairs = program.interchangeable
    if len(pairs) < 2:
        return None
    names = b"".join(pairs)
    others = bytes(byte for byte in range(256) if byte & TOKEN not in names)
    pair_of = {token: (pair, side) for pair in pairs for side, token in enumerate(pair)}
    store = program.faces.cell if program.faces else None
    where = [*places, *program.face_cells.values(), *([store] if store else [])]

    @lru_cache(maxsize=4096)
    def table_for(lie: bytes) -> bytes | None:
        """The new name of each token, for tokens that lie so; None where all keep theirs."""
        becomes: dict[int, int] = {}
        fresh = iter(pairs)
        for token in lie:
            if token not in becomes:
                pair, side = pair_of[token]
                # The one of the two that comes first takes the first name.
                becomes |= zip((token, *(pair[:side] + pair[side + 1 :])), next(fresh), strict=True)
        old, new = bytes(becomes), bytes(becomes.values())
        return bytes.maketrans(old + old.translate(UP), new + new.translate(UP)) if old != new else None

    def rename(cells: Cells) -> None:
        table = table_for(b"".join([cells[place] or b"" for place in where]).translate(DOWN, others))
        if table:
            for place in where:
                if cells[place]:
                    cells[place] = cells[place].translate(table)
            if store and cells[store]:
                cells[store] = bytes(sorted(cells[store]))

    return rename


def _no_name_any_more(cells: Cells, token: int, face: int | None, places: Sequence[int]) -> None:
    """A card that nobody asks for by its name is one like others again; if its face has been seen, that is kept."""
    becomes = INDIFFERENT
    if face is not None and cells[face]:
        becomes, cells[face] = cells[face][0], None
    for place in places:
        if token in cells[place] or token | FACE_UP in cells[place]:
            old, new = bytes([token, token | FACE_UP]), bytes([becomes, becomes | FACE_UP])
            cells[place] = cells[place].translate(bytes.maketrans(old, new))
