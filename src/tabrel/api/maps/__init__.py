"""Operating maps, slices with their bands, scenarios.

`routes`        the map, the filter alone, inputs and sensitivity
`slices`        slices, answered line by line
`scenarios`     scenarios saved in a study
`series`        what a slice or a comparison overlays: samples, or one sample in each scenario
`models`, `slice_models`   what goes over the wire
"""
