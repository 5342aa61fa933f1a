"""Quantities and observations of a filter, each once: its key, title, unit, usual range and place.

`units`             units that may be typed, with their factors to SI: `UNITS`, `shown`, `to_unit`
`quantities`        everything that can be measured: `QUANTITIES`, `HOLE_QUANTITIES`, `PART_TITLES`
`physical_limits`   between which limits every number of a study lies: `PHYSICAL_LIMITS`
`stations`          stations of the work: `STATIONS`
`hole_dimensions`   which readings a hole of each shape takes: `SHAPE_DIMENSIONS`
`terms`             words for what is named by keys: states, provenances, parts, assumptions, inputs: `TERMS`
`results`           the results of a sample: name, title, unit: `RESULTS`, `HEADLINES`
`measures`          what a use can ask of a filter: `BEHAVIOUR_MEASURES`
`conditions`        the conditions of a counted test: `CONDITIONS`
`glossary`          the terms of the field: `GLOSSARY`
`observations`      everything that can be seen: `OBSERVATIONS`; its rows in `observed_outside` and `observed_inside`
`observation`       one such row, and how an observation of a sample is read and set: `observed`
"""
