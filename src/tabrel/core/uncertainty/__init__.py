"""From many readings to one number with its uncertainty, and how that passes through every formula.

`estimate`          readings to an `Estimate`: mean, type A and B, outliers, instruments
`propagation`       first order with correlations and effective degrees of freedom: `Variables`, `Result`
`sampled_number`    the same formulas over random samples (JCGM 101): `SampledNumber`, `nominal_value`
`sampling`          inputs sampled at random, or one at a time: `SampledVariables`
`model_arrays`      a model whose numbers are arrays, at some of its places: `picked`, `flattened`
"""
