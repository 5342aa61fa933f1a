"""The working behind a result.

`routes`    a working, line by line
`models`    what it is made of
"""
