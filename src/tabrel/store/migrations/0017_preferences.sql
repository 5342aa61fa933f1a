-- What the analyst prefers of what can be seen on a filter, for every study: of an observation, its choices, the best first.

CREATE TABLE preference (
    observation  TEXT PRIMARY KEY,      -- key of the observation
    preferred    TEXT NOT NULL CHECK (json_valid(preferred))  -- lists of choices, ties in one list
) STRICT, WITHOUT ROWID;
