"""The command line: a thin door to the core and the shelf.

`prove` exits 0 for proved, fixed and rule; 1 for refuted, one-of and lost; 2 for bad input, told on standard
error with line, column and remedy; 3 for unsettled; 70 where the program itself broke.
"""

from __future__ import annotations

import os
import sys
from importlib import import_module
from typing import Any

import typer
from typer.core import TyperGroup
from typer.main import get_group

ROOMS = ("proofs", "notes", "variants", "shelf", "keep", "show", "rooms", "desks")
"""modules with verbs, the lightest first: one is loaded when a verb is asked for that those before it do not have"""


class Verbs(TyperGroup):
    def get_command(self, context: Any, name: str) -> Any:
        for room in ROOMS:
            if name in self.commands:
                break
            self.commands.update(get_group(import_module(f".{room}", __name__).app).commands)
        return self.commands.get(name)

    def list_commands(self, context: Any) -> list[str]:
        self.get_command(context, "")
        return list(self.commands)


app = typer.Typer(cls=Verbs, no_args_is_help=True, add_completion=False)


@app.callback()
def bench() -> None:
    """A bench for self-working card routines."""


BROKEN = 70
"""a fault of ours: EX_SOFTWARE of sysexits.h; never to be taken for an answer"""


def main() -> None:
    try:
        app()
    except Exception as error:
        typer.echo(f"Golden Pivot broke here ({type(error).__name__}: {error}). Please report it.", err=True)
        if os.environ.get("GOLDEN_PIVOT_DEBUG"):
            raise
        sys.exit(BROKEN)
