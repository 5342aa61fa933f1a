"""Physics of one restriction, and the numerics that solve many at once.

`restrictions`      a and b of holes (with the Sampson term), bores, gaps, turns, stated losses: `Restriction`
`pleat_channels`    the channels between pleats and beside the element
`flow_curve`        a flow with its derivative, and the oil it is of: `FlowCurve`, `Fluid`
`coarser_grid`      some places of a grid that about tell the others: `CoarserGrid`
`root_finding`      roots of a whole grid at once: `falling_roots`
`grid_roots`        the same for a model whose numbers differ from place to place
`threshold_curve`   where a pressure crosses a threshold, solved as a curve
"""
