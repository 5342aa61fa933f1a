"""Everything that can be measured, seen or stated, and the words for it.

`routes`    the one route that serves the catalogues of the core
"""
