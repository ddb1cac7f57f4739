"""Whether what is seen at the end tells what was chosen: two paths that can leave the same faces must not differ in it."""

from __future__ import annotations

from collections.abc import Iterable

from ..cards import FACE_UP, TOKEN
from ..faults import OutOfBudget

Seen = tuple[bytes, bytes]
"""(face of each card that is looked through, 0 where this path leaves it open, with FACE_UP as it lies; the faces that this
path has elsewhere, in order)"""
Told = tuple[int, ...]
MOST_PAIRS = 2_000_000
FACES = 52
"""of a pack whose cards may be any"""


def untold(found: Iterable[tuple[Seen, Told]], faces: int = FACES) -> set[tuple[Seen, Told]]:
    """Those beside which there is another that can look the same and tells something else.

    Raises OutOfBudget where too many would have to be held against each other.
    """
    several: set[tuple[Seen, Told]] = set()
    alike: dict[tuple[bool, ...], dict[Seen, set[Told]]] = {}
    for seen, told in found:
        way = tuple(byte >= FACE_UP for byte in seen[0])
        alike.setdefault(way, {}).setdefault(seen, set()).add(told)
    pairs = 0
    for group in alike.values():
        is_open = {seen for seen in group if any(not byte & TOKEN for byte in seen[0])}
        # Two that leave nothing open look the same when the faces looked through are, whatever lies elsewhere.
        settled: dict[bytes, set[Told]] = {}
        for seen in group.keys() - is_open:
            settled.setdefault(seen[0], set()).update(group[seen])
        for seen, numbers in group.items():
            others = (
                group
                if seen in is_open
                else {(seen[0], b""): settled[seen[0]], **{one: group[one] for one in is_open}}
            )
            for other, theirs in others.items():
                pairs += 1
                if pairs > MOST_PAIRS:
                    raise OutOfBudget("work", f"{MOST_PAIRS:,} pairs of endings have been held against each other")
                if len(numbers | theirs) > 1 and can_look_alike(seen, other, faces):
                    several |= {(seen, one) for one in numbers if theirs - {one}}
    return several


def can_look_alike(one: Seen, other: Seen, faces: int = FACES) -> bool:
    """Whether there are two packs, one for each path, that end with the same faces in the same order. No card is there twice,
    and there are so many faces.

    >>> can_look_alike((bytes([7, 0]), b""), (bytes([0, 8]), b"")), can_look_alike((bytes([7, 0]), b""), (bytes([0, 7]), b""))
    (True, False)
    """
    mine, theirs = ({byte & TOKEN for byte in seen[0]} | set(seen[1]) for seen in (one, other))
    left = faces - len((mine | theirs) - {0})
    for byte, there in zip(one[0], other[0], strict=True):
        face, facing = byte & TOKEN, there & TOKEN
        if face != facing and ((face and facing) or (face in theirs if face else facing in mine)):
            return False
        left -= not (face or facing)
    return left >= 0
