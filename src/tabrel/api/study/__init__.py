"""Studies: list, open, import, export, undo.

`studies`   list, open, import, add a sample, export
`undo`      undo and redo over the journal
`models`    what goes over the wire
"""
