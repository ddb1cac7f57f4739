"""How much of the code is tests: lines with something on them, generated files left out."""

from __future__ import annotations

import subprocess
from pathlib import Path

ROOT = Path(__file__).parents[1]


def lines(paths: list[Path]) -> int:
    return sum(1 for path in paths for row in path.read_text(encoding="utf-8").splitlines() if row.strip())


def main() -> None:
    patterns = ["*.py", "*.ts", "*.tsx", "*.css", "*.sql"]
    listed = subprocess.run(["git", "ls-files", *patterns], cwd=ROOT, capture_output=True, text=True, check=True)
    files = [ROOT / name for name in listed.stdout.split() if not name.endswith("schema.d.ts")]
    tests = [path for path in files if "tests" in path.relative_to(ROOT).parts or ".test." in path.name]
    of_tests, of_all = lines(tests), lines(files)
    print(f"tests: {of_tests:,} of {of_all:,} lines, {of_tests / of_all:.0%} (a quarter to a third is the aim)")


if __name__ == "__main__":
    main()
