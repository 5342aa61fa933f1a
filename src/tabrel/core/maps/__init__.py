"""Operating maps over oil temperature and engine speed, the curves on them, and how sure they are.

`operating_map`     a whole grid solved at once, with the pressure-loss breakdown of a point
`quantities`        what a map can show: `MAP_QUANTITIES`
`onset`             where the bypass valve opens and closes, and the regulator, solved as curves
`monte_carlo`       bands and intervals from random samples of every input
`sensitivity`       inputs of a map, and which assumption moves it most
`comparison`        what restricts, and when oil goes unfiltered, for one filter at two points
`behaviour`         what a filter does whatever it is used for
`what_if`           a scenario in words
"""
