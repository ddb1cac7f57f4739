"""Perturbs the meaning of every kind of step, and counts the perturbations that the tests of the core let pass.

`mutate.py [KIND …] [--each N]` takes only these kinds, at most N perturbations of each (4). Each one runs in a
forked process of its own: the source of the meaning is parsed, one thing in it changed, and the tests run
until the first that goes red. Exits 1 when a perturbation survives.
"""

from __future__ import annotations

import argparse
import ast
import contextlib
import inspect
import io
import os
import resource
import sys
import textwrap
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from golden_pivot.core.language.parser import _read_line, _tried, read_routine
from golden_pivot.core.steps import REGISTRY, StepKind

TESTS = [
    "test_three_ways.py",
    "passes/test_footprints.py",
    "test_layouts.py",
    "test_language.py",
    "test_prover.py",
    "test_true_words.py",
    "test_wider_language.py",
    "../principles/test_principles.py",
    "test_faces_forgotten.py",
]
"""the quickest to notice come first"""
MOST_SECONDS = 1_200


class _Change(ast.NodeTransformer):
    """Makes the change with this number, counting from 0 in the order of the source."""

    def __init__(self, wanted: int) -> None:
        self.wanted, self.seen, self.did = wanted, 0, ""

    def _mine(self, what: str, node: ast.AST) -> bool:
        mine = self.seen == self.wanted
        self.seen += 1
        if mine:
            self.did = f"{what}: {ast.unparse(node)}"
        return mine

    def visit_JoinedStr(self, node: ast.JoinedStr) -> ast.AST:
        return node  # wording is no meaning

    def visit_Raise(self, node: ast.Raise) -> ast.AST:
        return node

    def visit_FunctionDef(self, node: ast.FunctionDef) -> ast.AST:
        if node.name == "passing":  # a set of cards: its order is no meaning, its content is
            if self._mine("unseen", node.args):
                node.body = ast.parse("return b''").body
            return node
        return node if node.name in ("explain", "say") else self.generic_visit(node)

    def visit_BinOp(self, node: ast.BinOp) -> ast.AST:
        self.generic_visit(node)
        if isinstance(node.op, ast.Add) and self._mine("other order", node):
            return ast.BinOp(node.right, ast.Sub() if isinstance(node.right, ast.Constant) else ast.Add(), node.left)
        return node

    def visit_Subscript(self, node: ast.Subscript) -> ast.AST:
        self.generic_visit(node)
        if isinstance(node.slice, ast.Slice) and node.slice.step and self._mine("not reversed", node):
            return node.value
        return node

    def visit_IfExp(self, node: ast.IfExp) -> ast.AST:
        self.generic_visit(node)
        if self._mine("other branch", node):
            return ast.IfExp(node.test, node.orelse, node.body)
        return node

    def visit_Compare(self, node: ast.Compare) -> ast.AST:
        self.generic_visit(node)
        if isinstance(node.ops[0], ast.Eq) and self._mine("not equal", node):
            return ast.Compare(node.left, [ast.NotEq()], node.comparators)
        return node

    def visit_Expr(self, node: ast.Expr) -> ast.AST:
        self.generic_visit(node)
        if isinstance(node.value, ast.Call) and self._mine("left out", node):
            return ast.Pass()
        return node


def _function(function: Callable[..., object]) -> ast.stmt:
    return ast.parse(textwrap.dedent(inspect.getsource(function))).body[0]


def _helpers(kind: StepKind) -> list[ast.stmt]:
    """What a meaning shares with others of its module is part of it."""
    known = kind.means.__globals__
    inside = [const for const in kind.means.__code__.co_consts if inspect.iscode(const)]
    names = [name for code in (kind.means.__code__, *inside) for name in code.co_names if name.startswith("_")]
    return [_function(known[name]) for name in names if inspect.isfunction(known.get(name))]


def perturbed(kind: StepKind, number: int) -> tuple[str, ast.Module] | None:
    """(what was changed, the changed source); None when there are fewer changes."""
    tree = ast.Module([*_helpers(kind), _function(kind.means)], [])
    function = tree.body[-1]
    assert isinstance(function, ast.FunctionDef)
    function.decorator_list = []
    if len(function.body) == 1 and number == 0:  # only a docstring: a line that should change nothing does
        function.body.append(ast.parse("raise b.fault('text', 'perturbed', 'nothing', 'nothing')").body[0])
        return "refused", ast.fix_missing_locations(tree)
    change = _Change(number)
    tree = change.visit(tree)
    return (change.did, ast.fix_missing_locations(tree)) if change.did else None


def perturbations(kind: StepKind, each: int) -> Iterator[tuple[str, ast.Module]]:
    """At most `each` of them, spread over the source."""
    found = []
    while (one := perturbed(kind, len(found))) is not None:
        found.append(one)
    step = max(1, -(-len(found) // each))
    yield from found[::step]


def _pytest(*how: str) -> int:
    with contextlib.redirect_stdout(io.StringIO()), contextlib.redirect_stderr(io.StringIO()):
        return int(pytest.main(["-q", "-p", "no:cacheprovider", *how, *(f"tests/core/{name}" for name in TESTS)]))


def _tested(kind: StepKind, tree: ast.Module) -> int:
    """What pytest says of this meaning."""
    space = dict(kind.means.__globals__)
    for one in tree.body:
        if isinstance(one, ast.FunctionDef):
            one.decorator_list = []
    exec(compile(tree, f"<perturbed {kind.name}>", "exec"), space)
    REGISTRY[kind.name] = replace(kind, means=space[kind.means.__name__])
    _read_line.cache_clear()
    _tried.cache_clear()
    read_routine.cache_clear()
    os.environ["FOCUS"] = kind.name
    return _pytest("-x", "--hypothesis-seed=1")


def survives(kind: StepKind, tree: ast.Module) -> bool:
    """Whether all tests pass with this meaning."""
    child = os.fork()
    if child == 0:
        code = 1  # a meaning that cannot even be made is noticed as well
        try:
            resource.setrlimit(resource.RLIMIT_CPU, (MOST_SECONDS, MOST_SECONDS))  # it may go round for ever
            code = _tested(kind, tree)
        finally:
            os._exit(code)
    _, status = os.waitpid(child, 0)
    code = os.waitstatus_to_exitcode(status)
    if code > 1:
        raise SystemExit(f"pytest could not run its tests for {kind.name}: it ended with {code}.")
    return code == 0


def main() -> None:
    reader = argparse.ArgumentParser()
    reader.add_argument("kinds", nargs="*")
    reader.add_argument("--each", type=int, default=4)
    asked = reader.parse_args()
    kinds = [REGISTRY[name] for name in asked.kinds] or list(REGISTRY.values())
    work = [(kind, *one) for kind in kinds for one in perturbations(kind, asked.each)]
    # What the tests import is loaded once: a forked process has it already.
    _pytest("--collect-only")
    if not survives(kinds[0], ast.Module([_function(kinds[0].means)], [])):
        raise SystemExit("The tests are red without a change: nothing can be said.")
    untouched = {kind.name for kind in kinds} - {kind.name for kind, _, _ in work}
    with ThreadPoolExecutor(2) as pool:
        results = pool.map(lambda one: survives(one[0], one[2]), work)
        survivors = 0
        for (kind, did, _), lives in zip(work, results, strict=True):
            survivors += lives
            print(f"{'SURVIVES' if lives else 'caught  '}  {kind.name:18} {did}", flush=True)
    print(f"{len(work)} perturbations of {len(kinds)} kinds of step, {survivors} survive")
    if untouched:
        print("not perturbed:", ", ".join(sorted(untouched)))
    sys.exit(1 if survivors or untouched else 0)


if __name__ == "__main__":
    main()
