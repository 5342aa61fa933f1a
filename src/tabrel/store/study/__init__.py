"""Rows of studies and of their plans.

`studies`   studies whole, and the frame without samples
`uses`      what the filters are to be good for
`arithmetic` printed sums that are kept with a study
`report_numbers` numbers of issued reports, each given once
`reports`   reports as they were issued
`history`   a study with all its rows and changes, out and in
`plans`     scenarios, duty cycles
"""
