"""Rows of samples, their claims and observations.

`samples`   samples whole, and what is set of them one by one
"""
