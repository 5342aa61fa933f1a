-- A sample begun as a copy of another one: what is copied is marked until it is confirmed; templates of one's own.

ALTER TABLE reading ADD COLUMN copied_from TEXT;     -- label or template; NULL: read on this filter, or confirmed
ALTER TABLE hole_group ADD COLUMN copied_from TEXT;
ALTER TABLE claim ADD COLUMN copied_from TEXT;

CREATE TABLE copied_fact (
    id           INTEGER PRIMARY KEY,
    sample_id    INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    thing        TEXT NOT NULL,        -- details/KEY, observations/KEY or states/KEY
    copied_from  TEXT NOT NULL,
    UNIQUE (sample_id, thing)
) STRICT;

-- Parts of a sample to begin others with, in every study.
CREATE TABLE template (
    id         INTEGER PRIMARY KEY,
    name       TEXT NOT NULL UNIQUE,
    parts      TEXT NOT NULL,          -- JSON list
    document   TEXT NOT NULL,          -- JSON of a sample of the study document
    saved_at   TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at TEXT                    -- NULL: it is offered
) STRICT;
