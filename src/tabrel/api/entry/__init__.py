"""Entry: readings, holes, stated values, observations, claims.

`samples`           that a sample is there, why a quantity has no value, the cut
`readings`          a reading, its echo, setting it aside and using it again, its history
`holes`             groups of holes
`details`     what is stated once, and what is seen
`claims`            claims and the checks made of them
`counts`            particle counts of a test; `count_models` what is said of a table
`reading_tables`    tables of readings that come in; `table_models` what is said of them
`offers`            what shops ask for a part
`dates`             dates as people type them
`date_codes`        date codes and the rules that read them
`copies`            a sample begun with parts of another one; templates; confirming
`models`            what comes in from a field, and the echo
"""
