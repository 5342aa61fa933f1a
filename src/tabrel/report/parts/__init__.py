"""The parts of a report.

`answer`      the first page: the card
`one_filter`  what is told of each filter
`comparison`  the comparison sheet, all maps, same part or not
`verdicts`    requirements and what was found, rankings
`trail`       items, conditions, method, claims, assumptions, cautions; readings and budgets
"""
