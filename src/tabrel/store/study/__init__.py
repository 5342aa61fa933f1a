"""Rows of studies and of what is only thought of in them.

`studies`   studies whole, and the frame without samples
`plans`     scenarios, duty cycles, warm-up plans
"""
