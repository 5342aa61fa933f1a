"""Rows of studies and of what is only thought of in them.

`studies`   studies whole, and the frame without samples
`uses`      what the filters are to be good for
`arithmetic` somebody's arithmetic that is kept with a study
`reports`   the plan of the report, and reports as they were issued
`history`   a study with all its rows and changes, out and in
`plans`     scenarios, duty cycles, warm-up plans
"""
