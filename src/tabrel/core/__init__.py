"""The filtration analyst's rules and computation, in SI units, free of interface, SQL and files.

In reading order; a package imports only packages above it (a test holds the order):

`errors`        what the core raises
`stopping`      a computation that nobody waits for any more
`numbers`       how a number is printed
`field_units`   floats annotated with the unit of their field
`study`         the study as typed
`catalogue`     what can be measured and seen
`entry`         understanding what a person types
`audit`         printed sums, recomputed
`uncertainty`   readings to one number with its uncertainty, and its propagation
`oil`           viscosity and density
`hydraulics`    physics of one restriction; solving many at once
`parts`         holes, plate, bypass valve, media by themselves
`counts`        a counted test: totals, efficiency curve, along time, dust loading
`sample`        one filter as measured
`circuit`       the engine's oil circuit with a filter in it
`maps`          operating maps, their curves, bands and sensitivity
`starts`        warm-up and life
`figures`       what is drawn of a filter
`rules`         what is refused
`details`       what is typed once and not measured
`review`        what is said back: echo, warnings, claims, the list before the cut
`results`       results of a sample and their working
`judge`         which filter for which use: ranking methods, chances of places
`answer`        the answer of a use in sentences
"""
