"""A change of a sample on its way: what was seen before, what it made of the sheet, what it made stale.

`bench`         checks the revision that was seen, records, and answers: every endpoint that changes a sample goes through it
`undo`          undo and redo over the journal
`models`        what goes over the wire
"""
