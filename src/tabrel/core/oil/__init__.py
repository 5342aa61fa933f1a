"""The oil: viscosity over temperature, density, the grades to begin with.

`model`             viscosity and density at a temperature: `OilModel`, `oil_model`
`viscosity_line`    the line as it is drawn on its D341 axes
`grades`            typical oils by grade: `GRADES`, `grade_oil`
"""
