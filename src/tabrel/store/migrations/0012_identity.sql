-- Which database this is: another one once a copy was put in its place, so that no window writes into what it has not seen.

CREATE TABLE identity (
    id    INTEGER PRIMARY KEY CHECK (id = 1),
    name  TEXT NOT NULL
) STRICT;

INSERT INTO identity (id, name) VALUES (1, lower(hex(randomblob(8))));
