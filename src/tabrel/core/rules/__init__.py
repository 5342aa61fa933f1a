"""Rules of a study: impossible values are refused, with the place and the correction.

`study`         readings, holes, oil, circuit, claims: `check_study`, `check_sample`
`evidence`      counts, benches, photographs
`in_use`        what was found on a used filter; intervals, logs, own instruments
`uses`          uses
`report`        the plan of a report
`plans`         scenarios, duty cycles, warm-up plans
`refusals`      the refusals they share
`limits`        what is larger than any study, letters that do not show
"""
