"""What faces tell: held against every pack there is."""

from __future__ import annotations

from itertools import permutations, product

from hypothesis import given
from hypothesis import strategies as st

from golden_pivot.core.cards import FACE_UP
from golden_pivot.core.search.telling import Seen, untold

FACES = (1, 2, 3, 4)


@st.composite
def endings(draw: st.DrawFn) -> Seen:
    """Up to two cards that are looked through, each known or open, either way up, and up to two faces elsewhere."""
    several = draw(st.permutations(FACES))
    here = [
        draw(st.sampled_from([face, 0])) | draw(st.sampled_from([0, 0, 0, FACE_UP]))
        for face in several[: draw(st.sampled_from([1, 1, 2]))]
    ]
    return bytes(here), bytes(sorted(several[2 : 2 + draw(st.integers(0, 2))]))


def looks(seen: Seen) -> set[tuple[tuple[int, bool], ...]]:
    """Everything this ending can look like: open cards are any that lie nowhere else on its path."""
    here, beside = seen
    known = {byte & ~FACE_UP for byte in here} - {0}
    left = [face for face in FACES if face not in known | set(beside)]
    gaps = sum(not byte & ~FACE_UP for byte in here)
    found = set()
    for filled in permutations(left, gaps):
        rest = iter(filled)
        found.add(tuple((byte & ~FACE_UP or next(rest), byte >= FACE_UP) for byte in here))
    return found


@given(st.lists(st.tuples(endings(), st.tuples(st.integers(0, 1))), min_size=3, max_size=9))
def test_what_is_told_is_what_no_pack_confuses(found: list[tuple[Seen, tuple[int, ...]]]) -> None:
    confused = {
        one for one, other in product(found, repeat=2) if one[1] != other[1] and looks(one[0]) & looks(other[0])
    }
    assert untold(found, len(FACES)) == confused
