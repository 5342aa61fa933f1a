"""Filters side by side at a place of the map.

`routes`    what restricts and when oil goes unfiltered, for every filter
`models`    what goes over the wire
`parts`     whether two filters are one part under two names
`uses`        what the filters are to be good for, entered and changed
`use_models`  what goes over the wire of that
`judged`      one use judged for every filter
`judged_models` what goes over the wire of that
`sheet`       everything known of several filters, row by row
`sheet_models` what goes over the wire of that
`sums`        audit of printed sums, kept with the study
`percentiles`  a filter among all that was measured
`numbers_cache` the numbers of every sample
`other_samples` samples of other studies put beside those of one
`preferences` which choice of an observation is better, for every study
"""
