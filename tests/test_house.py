"""Rules of the house that no type checker knows: which way imports run, and who may know a kind of step by its name."""

from __future__ import annotations

import ast
import importlib.metadata
import json
import sys
import tomllib
from collections import Counter
from graphlib import TopologicalSorter
from itertools import chain
from pathlib import Path

from scripts.defects import DEFECTS, has_its_place

import golden_pivot
from golden_pivot.core.steps import REGISTRY

SOURCE = Path(golden_pivot.__file__).parent
MODULES = {
    ".".join(path.relative_to(SOURCE.parent).with_suffix("").parts).removesuffix(".__init__"): path
    for path in SOURCE.rglob("*.py")
}
TREES = {name: ast.parse(path.read_text(encoding="utf-8")) for name, path in MODULES.items()}


def imports_of(name: str) -> set[str]:
    """The modules of ours that a module names, in whatever part of it; also those for types alone."""
    package = name if MODULES[name].name == "__init__.py" else name.rpartition(".")[0]
    found: set[str] = set()
    for node in ast.walk(TREES[name]):
        if isinstance(node, ast.ImportFrom):
            base = package.split(".")[: len(package.split(".")) - max(0, node.level - 1)] if node.level else []
            module = ".".join([*base, *([node.module] if node.module else [])])
            for one in node.names:
                found.add(f"{module}.{one.name}" if f"{module}.{one.name}" in MODULES else module)
    return (found & set(MODULES)) - {name}


def test_no_circle_of_imports() -> None:
    """A worker process loads what only it needs as it begins, so that the server need not: see jobs/entry.py."""
    graph = {name: imports_of(name) for name in MODULES}
    assert "golden_pivot.core.search.program" in graph["golden_pivot.core.passes.liveness"]
    list(TopologicalSorter(graph).static_order())  # raises CycleError with the circle


MAY_IMPORT = {
    # what lies below `core` → which of its other parts it may import
    "manual": {"language", "search", "building", "steps"},
    "language": {"steps"},  # the parser knows the kinds of step; steps know words and values
    "search": {"language"},
    "passes": {"search"},
    "building": {"language", "search", "passes"},
    "steps": {"language", "search", "building"},
    "answers": {"language", "search", "building", "passes"},
    "variants": {"language", "search", "building", "answers", "steps"},
    "desks": {"language", "search", "building", "answers", "variants", "steps"},
    "show": {"analysis", "language", "search", "building", "answers", "variants", "steps", "desks"},
    "reading": {"language", "steps", "building", "search", "answers"},
    "book": {"answers", "variants"},
    "programme": {"analysis", "answers", "book", "building", "language", "search", "show", "variants"},
    "practice": {"analysis", "answers", "building", "language", "search", "show"},
    "door": {"analysis", "answers", "variants", "show"},
    "analysis": {"answers", "language", "building", "search"},
}
GROUND = {"cards", "faults", "budget", "executor", "layouts", "english", "spreadsheet", "to_learn"}


def test_imports_run_one_way() -> None:
    wrong = []
    for name in MODULES:
        parts = name.split(".")
        for other in imports_of(name):
            theirs = other.split(".")
            if parts[1:2] == ["core"]:
                if theirs[1:2] != ["core"]:
                    wrong.append(f"{name} -> {other}")
                elif len(parts) > 2 and theirs[2:3] and theirs[2] != parts[2]:
                    allowed = GROUND | (set() if parts[2] in GROUND else MAY_IMPORT.get(parts[2], set()))
                    if theirs[2] not in allowed:
                        wrong.append(f"{name} -> {other}")
            elif parts[1:2] == ["store"] and theirs[1:2] not in (["store"], ["core"]):
                wrong.append(f"{name} -> {other}")
    assert not wrong


def test_the_witness_stands_by_itself() -> None:
    """It shares nothing with what it is to check."""
    inside = [name for name in MODULES if name.startswith("golden_pivot.witness")]
    assert len(inside) > 10
    assert [
        f"{name} -> {other}"
        for name in inside
        for other in imports_of(name)
        if not other.startswith("golden_pivot.witness")
    ] == []


def test_no_two_modules_of_the_core_share_a_name() -> None:
    names = Counter(path.name for path in (SOURCE / "core").rglob("*.py") if path.name != "__init__.py")
    assert [name for name, many in names.items() if many > 1] == []


def test_kinds_of_step_are_known_by_what_they_are() -> None:
    """Outside of core/steps nobody asks for a kind by its name; what writes names down, as tags, may read them."""
    writes_tags = {
        "core.language.printer",
        "core.language.schema",
        "core.manual",
        "core.language.sheet",
        "api.routes",
        "core.language.claims",
    }
    found = []
    for name, tree in TREES.items():
        short = name.removeprefix("golden_pivot.")
        if short.startswith(("core.steps", "witness.")):  # a second mind has a meaning of its own for each
            continue
        for node in ast.walk(tree):
            if isinstance(node, ast.Attribute) and node.attr == "name" and short not in writes_tags:
                holder = node.value
                if "kind" in (getattr(holder, "attr", ""), getattr(holder, "id", "")):
                    found.append(f"{short}:{node.lineno}")
            if (
                isinstance(node, ast.Constant)
                and isinstance(node.value, str)
                and "_" in node.value
                and node.value in REGISTRY
            ):
                found.append(f"{short}:{node.lineno} {node.value}")
    assert not found


def test_every_dependency_is_declared_and_named() -> None:
    """What is imported must be asked for by name, not come along with something else; all of it is in THIRD_PARTY.md."""
    root = SOURCE.parents[1]
    project = tomllib.loads((root / "pyproject.toml").read_text(encoding="utf-8"))["project"]
    asked = [*project["dependencies"], *chain(*project["optional-dependencies"].values())]
    declared = {one.partition("==")[0].lower() for one in asked}
    provided = importlib.metadata.packages_distributions()
    for name, tree in TREES.items():
        for node in ast.walk(tree):
            names = [one.name for one in node.names] if isinstance(node, ast.Import) else []
            names += [node.module or ""] if isinstance(node, ast.ImportFrom) and not node.level else []
            for top in {one.partition(".")[0] for one in names} - sys.stdlib_module_names - {"golden_pivot"}:
                assert {one.lower() for one in provided.get(top, ())} & declared, f"{name} imports {top}"
    front_end = json.loads((root / "web" / "package.json").read_text(encoding="utf-8"))["dependencies"]
    told = (root / "THIRD_PARTY.md").read_text(encoding="utf-8")
    assert [one for one in (*declared, *front_end) if f"| {one} |" not in told] == []


def test_every_defect_that_is_put_in_still_has_its_place() -> None:
    assert [one.name for one in DEFECTS if not has_its_place(one)] == []
