"""Backups: copies kept, put back and looked through.

`models`    what is said of them
`daily`     the copy of each day of use
`routes`    operations
"""
