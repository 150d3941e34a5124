"""Kinds of part, one module each. Every module here that defines ``KIND`` (or several ``KINDS``) is found by itself."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache
from typing import Any

from ohmcensus.core.parts.kind import PartKind


@cache
def part_kinds() -> dict[str, PartKind[Any]]:
    """Return every kind of part by its name, in alphabetical order."""
    names = sorted(module.name for module in pkgutil.iter_modules(__path__))
    modules = [importlib.import_module(f"{__name__}.{name}") for name in names]
    kinds: list[PartKind[Any]] = [module.KIND for module in modules if hasattr(module, "KIND")]
    kinds += [kind for module in modules for kind in getattr(module, "KINDS", ())]
    return {kind.kind: kind for kind in sorted(kinds, key=lambda kind: kind.kind)}
