"""One sample on the bench: its whole sheet, its states, the cut.

`routes`    the sheet, the results, a state, the cut
`sheet`     puts the sheet together; everything that changes a sample answers with it
`plate`     the plate's part of the sheet
`models`    what the sheet is made of
"""
