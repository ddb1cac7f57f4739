"""Names and cells of files that are downloaded."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping
from typing import Any
from urllib.parse import quote

from ..core.spreadsheet import csv_text


def attachment(stem: str, ending: str) -> dict[str, str]:
    """The header for a file of this name: plain letters for those who know no better, the real name for all others.

    >>> print(attachment("Brücke", "pivot")["content-disposition"])
    attachment; filename="brucke.pivot"; filename*=UTF-8''Br%C3%BCcke.pivot
    """
    letters = unicodedata.normalize("NFKD", stem).encode("ascii", "ignore").decode()
    plain = re.sub(r"[^a-z0-9]+", "_", letters.lower()).strip("_")[:80] or "routine"
    real = (
        "".join(" " if unicodedata.category(c)[0] == "C" or c in "/\\" else c for c in stem).strip()[:120]
        or "routine"
    )
    return {
        "content-disposition": f"attachment; filename=\"{plain}.{ending}\"; filename*=UTF-8''{quote(f'{real}.{ending}', safe='')}"
    }


def table_csv(table: Mapping[str, Any]) -> str:
    """{head, rows} as CSV."""
    return csv_text([table["head"], *table["rows"]])
