"""Starts and life, and the duty cycles they follow.

`routes`    a start of every sample, its life, duty cycles
`models`    what goes over the wire
"""
