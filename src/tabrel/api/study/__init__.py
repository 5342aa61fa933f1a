"""Studies: list, open, import, export.

`library`     what belongs to no study, in a document
`studies`   list, open, import, export
`models`    what goes over the wire
"""
