"""Rows of readings and groups of holes.

`readings`          readings, never changed, only set aside; states
`holes`             groups of holes
`typed`             what was typed into a field
`date_codes`        rules by which date codes are read
`copies`            what is copied and not confirmed
`typed_numbers`     numbers of a study or a sample as they were typed
"""
