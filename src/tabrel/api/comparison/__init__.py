"""Filters side by side at a place of the map.

`routes`    what restricts and when oil goes unfiltered, for every filter
`models`    what goes over the wire
`parts`     whether two filters are one part under two names
`part_models` what goes over the wire of that
"""
