-- How date codes are read: rules that the analyst states, in every study.

CREATE TABLE date_code_rule (
    id       INTEGER PRIMARY KEY,
    name     TEXT NOT NULL UNIQUE,
    pattern  TEXT NOT NULL,
    maker    TEXT                -- whose codes; NULL: everybody's
) STRICT;
