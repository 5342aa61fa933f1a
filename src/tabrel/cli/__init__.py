"""The command line: one module a command.

`entry`    what ``tabrel`` starts
`main`     dispatch, and every error as one line
`output`   what is printed arrives, or the reason is a sentence
`analyse`, `audit`, `map`, `schema`, `serve`, `demo`   the commands
`report`   the report of a study as a file, by its ending
`import_study`   a package, or a study document, read back
`upkeep`   backup, restore, verify
`simulate`   a counted test by a simulated counter
"""
