"""The HTTP interface: routers and wire models, no formula, no SQL.

`app`           puts everything together: `create_app`
`errors`        one map from error to response
`body_limit`    bodies that are too large are refused: `BodyLimit`
`same_origin`   other pages are refused: `SameOrigin`
`stale`         what a change makes stale
`which_database`   every answer says of which database it is
`workers`       processes that compute beside the server
`turns`         heavy computation takes turns
`deps`          one database connection a request
`wire`          what the models that come in share
`openapi`       the interface description, for the front end's types

In reading order; a package imports only packages above it:

`catalogue`     what can be measured, seen or stated
`sample`        the bench sheet of a sample
`study`         studies: list, open, import, export
`results`       the working behind a result
`figures`       what is drawn beside the opened filter
`change`        a change on its way: revisions, what it made of the sheet, undo
`entry`         readings, holes, stated values, observations, claims
`circuit`       oil and engine
`maps`          operating maps, slices, scenarios
`starts`        starts and life
`comparison`    filters side by side
`report`        the report: its plan, its pages, issuing it, every file that leaves
`upkeep`        copies of the database
"""
