"""Keeping what is kept: copies that are whole, and whether everything in a database can still be read.

`verify`    faults of a database, each in a sentence: `faults_of`
`backup`    a copy while others write, and putting one back
`kept`      the copies kept beside a database: by day, before it is brought up to date, and when asked for
"""
