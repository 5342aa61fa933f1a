-- Somebody's arithmetic, recomputed line by line and kept with the study: each line a part of the study document.

CREATE TABLE arithmetic_line (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, position)
) STRICT;
