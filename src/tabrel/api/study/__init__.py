"""Studies: list, open, import, export.

`studies`   list, open, import, export
`models`    what goes over the wire
"""
