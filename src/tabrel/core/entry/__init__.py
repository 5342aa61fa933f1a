"""Understanding what a person types: one reading, a whole line, a group of holes, and the likely error in it.

`reading_text`      one reading: `parse_reading` ("2 15/16 in", "drill #16", "18 thou")
`drills`            the inch drill series, fraction, number and letter
`field_line`        a whole line of a field: readings, provenance, instrument, note, state: `understand_entry`
`date_codes`      date codes by rules that the analyst states
`dates`             a date as people type it
`hole_line`         a group of holes in one line: `understand_hole_group`
`claim_text`        what a box or a page claims: `claim_from_wording`, `check_from_text`
`stated_number`     numbers of engine, oil and plan, with or without a unit: `understood_number`
`table_text`        a table as pasted: dividers, decimal mark, cells: `read_table`
`table_columns`     what its columns are, by their headings: `understood_headings`
`quantity_words`    which quantity a heading names: `named_quantity`
`count_columns`     what a table of particle counts is made of
`count_headings`    its headings, conditions and questions
`count_table`       a table of particle counts: `read_count_table`
`count_writing`     counts as a table of our own layout: `count_table_text`
`likely_errors`     a value far off, and the error that would explain it: `question`
"""
