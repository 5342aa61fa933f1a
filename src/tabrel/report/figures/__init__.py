"""Pictures from the core's own coordinates and arrays: drawings for paper and screen, charts for paper.

`palette`   their colours
`svg`       a small writer of drawings: `Drawing`
`drawings`  the section, and what all drawings share
`plate_drawing`    tapping plate
`media_drawings`   pleat pack, strip
`valve_drawing`    bypass valve at three lifts
`trade_bars`  what a buyer trades: particles passed, litres unfiltered, price
`charts`    start, valve, efficiency, chances, slices
`map_chart` operating map
"""
