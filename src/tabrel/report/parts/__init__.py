"""The parts of a report.

`answer`      the first page
`one_filter`  what is told of each filter
`comparison`  the comparison sheet
`trail`       readings, budgets, claims, conditions, rules, method
"""
