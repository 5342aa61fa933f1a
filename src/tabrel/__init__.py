"""Tabrel: from measured engine oil filters to areas, opening pressure, efficiency and operating maps.

In a notebook, `read_study` reads a study document; see `notebook`.
"""

from typing import TYPE_CHECKING, Any

__version__ = "0.1.0"

if TYPE_CHECKING:
    from tabrel.notebook import demo_study, read_study

__all__ = ["__version__", "demo_study", "read_study"]


def __getattr__(name: str) -> Any:
    """Load the notebook's names when they are first asked for, so that nothing else waits for them."""
    if name in ("read_study", "demo_study"):
        from tabrel import notebook

        return getattr(notebook, name)
    raise AttributeError(f"module 'tabrel' has no attribute {name!r}")
