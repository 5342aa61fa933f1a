-- What is told of a filter as delivered: offers, restriction of use, warranty, tier; and what the engine's filter mount is like.

ALTER TABLE study ADD COLUMN interval_school TEXT;  -- whose interval counts
ALTER TABLE sample ADD COLUMN restriction TEXT;     -- of use, as printed on it
ALTER TABLE sample ADD COLUMN warranty TEXT;        -- words, as printed
ALTER TABLE sample ADD COLUMN tier TEXT;            -- class of its maker's range

CREATE TABLE offer (
    id         INTEGER PRIMARY KEY,
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    position   INTEGER NOT NULL,
    shop       TEXT NOT NULL,
    amount     REAL NOT NULL,                        -- of the pack, in currency
    currency   TEXT NOT NULL,
    pack_of    INTEGER,                              -- NULL: one
    delivery   REAL,                                 -- of one pack, in currency; NULL: not stated
    seen       TEXT,                                 -- ISO date
    UNIQUE (sample_id, position)
) STRICT;

CREATE TABLE mount (
    study_id            INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    thread_diameter_mm  REAL,                        -- mm, of the engine's thread
    thread_pitch_mm     REAL,                        -- mm
    seat_diameter_mm    REAL                         -- mm, outside, of the face the gasket seals on
) STRICT;
