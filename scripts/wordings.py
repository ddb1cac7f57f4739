"""What the reader makes of a corpus of notes: prints the answers as a TSV (id, answer, second, third).

`wordings.py CORPUS.tsv`: columns id, context and said; lines of the context are joined with “ / ”.
"""

from __future__ import annotations

import csv
import sys
from pathlib import Path

from golden_pivot.core.reading import read_line

JOINT = " / "


def answers(context: str, said: str) -> list[str]:
    """AMBIGUOUS with all readings, CANNOT with what is missing, or readings in order; nothing where nothing was understood."""
    found = read_line("\n".join(context.split(JOINT)) if context else "", said)
    if found.cannot:
        return [f"CANNOT: {found.cannot}"]
    margin = said[: len(said) - len(said.lstrip())]
    readings = [JOINT.join(margin + line for line in one.lines) for one in found.readings]
    return [f"AMBIGUOUS: {' | '.join(readings)}", *readings] if found.asks else readings


def main(path: str) -> None:
    with Path(path).open(encoding="utf-8") as file:
        rows = list(csv.DictReader(file, delimiter="\t", quoting=csv.QUOTE_NONE))
    print("id\tanswer\tsecond\tthird")
    for row in rows:
        first, second, third, *_ = (*answers(row["context"] or "", row["said"]), "", "", "")
        print(row["id"], first, second, third, sep="\t")


if __name__ == "__main__":
    main(sys.argv[1])
