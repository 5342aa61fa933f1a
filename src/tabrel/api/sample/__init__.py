"""One sample on the bench: its whole sheet, its results.

`routes`        the sheet, the results, what is kept
`sheet`         puts the sheet together
`sent_sheets`   the sheets that were sent last
`models`        what the sheet is made of
"""
