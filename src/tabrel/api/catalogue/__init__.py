"""Everything that can be measured, seen or stated, and the words for it.

`models`    what they are made of
`routes`    the one route that serves the catalogues of the core
"""
