"""The results of a sample, and the working behind each.

`analysis`          all results and warnings: `analyse_sample`
`bounded`           results of sizes of which only a bound is known: `bounded_results`
`budget`            what the uncertainty of a result is made of: `uncertainty_budget`
`working`           a result as lines of formula, numbers put in and result
`working_builder`   builds those lines from what was measured of a sample: `Chain`
`working_chains`    the lines of each result
"""
