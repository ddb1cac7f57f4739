"""All kinds of step. A new module here is found by itself; nothing else needs to be told of it."""

from importlib import import_module
from pkgutil import iter_modules

from .declare import REGISTRY, StepKind

PLAINEST = ("control",)
"""modules whose kinds come first on their shelves; the others by their names. Of two kinds that a line with a blank fits, the first is meant"""

for _module in (*PLAINEST, *sorted(module.name for module in iter_modules(__path__))):
    import_module(f"{__name__}.{_module}")

FAMILIES = (
    "The page", "Set-up", "Choices", "Cards", "Counting", "Blocks", "Piles", "Mixes", "Order of events", "Endings"
)  # fmt: skip
"""shelves of the palette in the order in which a routine is written; a new family comes last"""

_in_order = sorted(
    REGISTRY.items(), key=lambda item: FAMILIES.index(item[1].family) if item[1].family in FAMILIES else len(FAMILIES)
)
REGISTRY.clear()
REGISTRY.update(_in_order)

__all__ = ["REGISTRY", "StepKind"]
