"""Rows of circuits and of the library of engines.

`circuits`  the circuit of a study
`engines`   the library
"""
