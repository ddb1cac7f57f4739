"""All kinds of step. A new module here is found by itself; nothing else needs to be told of it."""

from importlib import import_module
from pkgutil import iter_modules

from .declare import REGISTRY, StepKind

for _module in sorted(module.name for module in iter_modules(__path__)):
    import_module(f"{__name__}.{_module}")

__all__ = ["REGISTRY", "StepKind"]
