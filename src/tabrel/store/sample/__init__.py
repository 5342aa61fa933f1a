"""Rows of samples, their claims and observations.

`templates`  parts of a sample to begin others with
`offers`     what shops ask for a part
`stored_results`   results that stay
`claims`     claims made for a sample
`samples`    samples whole, and what is set of them one by one
"""
