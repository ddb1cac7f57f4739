"""Writes what is derived from the code: the language reference, its examples, the JSON Schema of a routine, the API description."""

from __future__ import annotations

import json
from pathlib import Path

from golden_pivot.api.app import create_app
from golden_pivot.core.language.schema import routine_schema
from golden_pivot.core.manual import language_reference
from golden_pivot.store import Database
from scripts.examples import examples

ROOT = Path(__file__).parents[1]


def generated() -> dict[Path, str]:
    """Every generated file with its content."""
    openapi = create_app(Database(":memory:")).openapi()
    return {
        ROOT / "docs" / "language.md": language_reference(),
        ROOT / "docs" / "examples.md": examples(),
        ROOT / "docs" / "routine.schema.json": json.dumps(routine_schema(), indent=1, ensure_ascii=False) + "\n",
        ROOT / "web" / "openapi.json": json.dumps(openapi, indent=1, ensure_ascii=False) + "\n",
    }


if __name__ == "__main__":
    for path, content in generated().items():
        path.write_text(content, encoding="utf-8")
        print(f"wrote {path.relative_to(ROOT)}")
