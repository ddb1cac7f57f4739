"""The command line as one types at it."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

from typer.testing import CliRunner

from golden_pivot import cli


def told(*arguments: str | Path, given: str | bytes = b"") -> subprocess.CompletedProcess[bytes]:
    """In this process, which is quicker; see `outside`."""
    found = CliRunner().invoke(cli.app, list(map(str, arguments)), input=given)
    if found.exception and not isinstance(found.exception, SystemExit):
        raise found.exception
    return subprocess.CompletedProcess(arguments, found.exit_code, found.stdout_bytes, found.stderr_bytes)


def outside(*arguments: str | Path, given: str | bytes = b"") -> subprocess.CompletedProcess[bytes]:
    """In a process of its own."""
    data = given.encode() if isinstance(given, str) else given
    command = [sys.executable, "-m", "golden_pivot", *map(str, arguments)]
    return subprocess.run(command, capture_output=True, input=data, check=False)
