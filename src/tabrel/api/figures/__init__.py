"""Figures beside the opened filter.

`routes`    valve, tray, pleat pack, strip, section, efficiency
`models`    what they are made of
`efficiency`   the efficiency station; `efficiency_models` what it is made of
"""
