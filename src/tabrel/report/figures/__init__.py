"""Pictures for print, from the core's own coordinates and arrays.

`palette`   their colours
`svg`       a small writer of drawings: `Drawing`
`drawings`  section, tapping plate
`media_drawings`   pleat pack, strip
`charts`    operating map, start, valve, efficiency, chances, slices
"""
