"""Oil and engine: the viscosity line, the circuit, the library of engines.

`routes`    read and set them
`models`    what goes over the wire
"""
