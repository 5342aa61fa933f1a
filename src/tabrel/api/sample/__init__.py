"""One sample on the bench: its whole sheet, its results.

`routes`        the sheet, the results, what is kept
`sheet`         puts the sheet together
`sent_sheets`   the sheets that were sent last
`needs`         what the maps still need
`offers`        what shops ask for the part
`plate`         the plate's part of the sheet
`models`        what the sheet is made of
"""
