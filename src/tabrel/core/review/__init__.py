"""Replies to the analyst: echoes, questions, missing inputs, claims checked by readings.

`echo`              what a field understood, before a reading is accepted
`asked`             the questions that readings raise
`typed_reading`     what a line typed into a field changes: `field_change`, `correction`
`reading_warnings`  readings that do not fit: outliers, usual ranges, likely errors
`fit`               whether filter and engine contradict each other
`sample_warnings`   what does not fit between the parts of a sample
`facts`             what is stated or seen once, each a thing that is changed apart
`copies`            a sample begun as a copy of another one, marked until it is confirmed
`reading_table`     a table of readings that comes in: `read_reading_table`
`claims`            what readings say of a claim
`kept`              what a study holds that no station shows yet
`needs`             what is still needed, told as choices; the short sheet
`before_cut`        what can be learned only before the cut
"""
