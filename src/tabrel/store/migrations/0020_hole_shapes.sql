-- The core knows the shapes of holes: a new one needs no migration.

CREATE TABLE hole_group_of_any_shape (
    id             INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id      INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    adapter_id     INTEGER REFERENCES adapter (study_id) ON DELETE CASCADE,
    placement      TEXT NOT NULL CHECK (placement IN ('inlet', 'centre_tube', 'adapter')),
    position       INTEGER NOT NULL,
    shape          TEXT NOT NULL,
    count          INTEGER NOT NULL,
    open_fraction  REAL,                -- 0 to 1
    copied_from    TEXT,                -- label or template; NULL: of this filter itself
    UNIQUE (sample_id, placement, position),
    UNIQUE (adapter_id, position),
    CHECK ((sample_id IS NULL) <> (adapter_id IS NULL)),
    CHECK ((placement = 'adapter') = (adapter_id IS NOT NULL))
) STRICT;
INSERT INTO hole_group_of_any_shape
SELECT id, sample_id, adapter_id, placement, position, shape, count, open_fraction, copied_from FROM hole_group;
DELETE FROM sqlite_sequence WHERE name = 'hole_group_of_any_shape';
INSERT INTO sqlite_sequence (name, seq) SELECT 'hole_group_of_any_shape', seq FROM sqlite_sequence WHERE name = 'hole_group';
DROP TABLE hole_group;
ALTER TABLE hole_group_of_any_shape RENAME TO hole_group;
