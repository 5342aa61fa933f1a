"""Rows of readings and groups of holes.

`readings`          readings, never changed, only set aside; states
`holes`             groups of holes
`typed_numbers`     numbers of a study or a sample as they were typed
"""
