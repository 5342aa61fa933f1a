"""Tabrel: from measured engine oil filters to areas, opening pressure, efficiency and operating maps."""

__version__ = "0.1.0"
