"""What is stated once of a sample, an engine, an oil or a plan, and not measured.

`stated_value`      one row: key, title, kind, unit; how its text is understood
`stated_values`     all of them: `STATED_VALUES`, how each is read from a study and set
`circuit_values`    the rows of engine, oil and plan
"""
