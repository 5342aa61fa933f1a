"""Each part of a filter by itself: holes, plate, bypass valve, media.

`hole_shapes`, `holes`   area and perimeter of one hole and of groups of them
`flow_area`              sections of the tapping plate, the smallest and the series equivalent
`plate_layout`           where the holes lie on the plate, and whether they can
`seat_and_spring`        seat and coil spring of the bypass valve
`bypass_opening`         every way to its opening pressure, with its interval
`bypass_valve`           its best evidence, full open, the valve as a part
`bypass_flow`, `valve_curve`   flow through the valve at a pressure, and its curve
`media`                  strip, effective area, permeability, solidity
`efficiency`             sizes and scales, claims, the screening estimate
"""
