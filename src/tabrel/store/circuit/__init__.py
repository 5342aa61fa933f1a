"""Rows of oil, circuit and the library of engines.

`circuits`  oil and circuit of a study
`engines`   the library
"""
