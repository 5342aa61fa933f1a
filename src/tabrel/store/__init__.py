"""The only place with SQL: one SQLite file, opened once a request.

`connection`    options and transactions
`migrate`       brings a database up to date, by `migrations/NNNN_what.sql`
`from_22`       a database of the last version that had another schema
`misfit`        which row a migration cannot carry
`served_alone`  one server a file
`journal`       every change, for undo and redo
`revisions`     how often a study was changed when one thing of it changed last
`identity`      which database it is
`preferences`   what the analyst prefers, for every study
`gather`        several statements read as one
`rows`          a row as a core object
`errors`        what the store raises
`parts`         what a study or a sample has one of, or one list of, as documents
`understood`    texts with a form of their own

In reading order; a package imports only packages above it:

`entry`         readings and groups of holes
`circuit`       circuit, library of engines
`sample`        samples, claims, observations
`study`         studies, scenarios, plans
`upkeep`        backup, restore, verify
`service`       a database as it is served: opened if need be to be read only, lent, called back
"""
