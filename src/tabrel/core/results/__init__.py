"""The results of a sample, and the working behind each.

`analysis`          all results and warnings: `analyse_sample`
`working`           a result as lines of formula, numbers put in and result
`working_chains`    the lines of each result
"""
