"""The report: its plan, its pages as they will print, issuing it, and every file that leaves.

`models`  what goes over the wire
`routes`  plan, preview, issue, differences, files
"""
