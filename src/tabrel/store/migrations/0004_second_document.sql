-- What a second version of the study document holds: numbers as typed, evidence of tests and benches, uses; numbers of stud
-- and adapter that nobody stated stay unknown; claims on results, bounds from above, sizes without a named scale.

ALTER TABLE study RENAME COLUMN uses TO intended_uses;

CREATE TABLE stud_new (
    study_id          INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    bore_mm           REAL NOT NULL,    -- mm
    length_mm         REAL,             -- mm; NULL: not stated
    least_bore_mm     REAL,             -- mm, over engines
    greatest_bore_mm  REAL              -- mm, over engines
) STRICT;
INSERT INTO stud_new (study_id, bore_mm, length_mm, least_bore_mm, greatest_bore_mm)
SELECT study_id, bore_mm, length_mm, least_bore_mm, greatest_bore_mm FROM stud;
DROP TABLE stud;
ALTER TABLE stud_new RENAME TO stud;

CREATE TABLE adapter_new (
    study_id           INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    wall_mm            REAL,            -- mm; NULL: not stated
    turn_deg           REAL,            -- degrees; NULL: not stated
    reference_bore_mm  REAL             -- mm
) STRICT;
INSERT INTO adapter_new (study_id, wall_mm, turn_deg, reference_bore_mm)
SELECT study_id, wall_mm, turn_deg, reference_bore_mm FROM adapter;
DROP TABLE adapter;
ALTER TABLE adapter_new RENAME TO adapter;

CREATE TABLE claim_new (
    id                  INTEGER PRIMARY KEY,
    sample_id           INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    position            INTEGER NOT NULL,
    kind                TEXT NOT NULL CHECK (kind IN ('efficiency', 'reading', 'observation', 'result', 'words')),
    source              TEXT NOT NULL,
    relation            TEXT CHECK (relation IN ('=', '>=', '>', '<=', '<')),
    efficiency_percent  REAL,           -- %
    size_um             REAL,           -- µm on `scale`
    scale               TEXT CHECK (scale IN ('um(c)', 'um(b)', 'um', 'unnamed')),
    standard            TEXT,
    key                 TEXT,           -- reading, observation or result the claim is about
    value               TEXT,           -- with its unit
    wording             TEXT,           -- as printed or said
    speaker             TEXT CHECK (speaker IN ('maker', 'seller', 'independent', 'vehicle_maker')),
    seen                TEXT,           -- ISO date
    stale               TEXT            -- why it no longer holds
) STRICT;
INSERT INTO claim_new (id, sample_id, position, kind, source, relation, efficiency_percent, size_um, scale, standard, key, value,
                       wording, speaker, seen, stale)
SELECT id, sample_id, position, kind, source, relation, efficiency_percent, size_um, scale, standard, key, value,
       wording, speaker, seen, stale FROM claim;
DROP TABLE claim;
ALTER TABLE claim_new RENAME TO claim;
CREATE INDEX claim_sample ON claim (sample_id, position);

ALTER TABLE sample ADD COLUMN stated_collapse_kpa REAL;  -- kPa

-- A number as it was typed: of a study (its engine, oil and plan), or of a sample.
CREATE TABLE typed_number (
    id          INTEGER PRIMARY KEY,
    study_id    INTEGER REFERENCES study (id) ON DELETE CASCADE,
    sample_id   INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    key         TEXT NOT NULL,          -- of the number in the study document
    text        TEXT NOT NULL,          -- as typed, with its unit
    provenance  TEXT CHECK (provenance IN ('measured', 'derived', 'published', 'by_eye', 'assumed')), -- NULL: not said
    origin      TEXT,                   -- what it was taken from, such as the library
    UNIQUE (study_id, key),
    UNIQUE (sample_id, key),
    CHECK ((study_id IS NULL) <> (sample_id IS NULL))
) STRICT;

-- Counts, benches and photographs of a sample, each as a part of the study document.
CREATE TABLE evidence (
    id         INTEGER PRIMARY KEY,
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    kind       TEXT NOT NULL CHECK (kind IN ('counts', 'flow_bench', 'bypass_bench', 'photographs')),
    document   TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (sample_id, kind)
) STRICT;
INSERT INTO evidence (sample_id, kind, document)
SELECT sample_id, 'counts', json_object('scale', scale, 'volume_ml', volume_ml, 'dilution', dilution, 'rows',
    (SELECT json_group_array(json_object('size_um', size_um, 'upstream', upstream, 'downstream', downstream))
     FROM (SELECT * FROM particle_count_row WHERE particle_count_row.sample_id = particle_counts.sample_id ORDER BY position)))
FROM particle_counts;
DROP TABLE particle_count_row;
DROP TABLE particle_counts;

-- A use of a study, as a part of the study document.
CREATE TABLE intended_use (
    id        INTEGER PRIMARY KEY,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, position)
) STRICT;

-- The journal's images of rows follow the new names.
UPDATE change_row SET before = json_remove(json_set(before, '$.intended_uses', json_extract(before, '$.uses')), '$.uses')
WHERE table_name = 'study' AND before IS NOT NULL;
UPDATE change_row SET after = json_remove(json_set(after, '$.intended_uses', json_extract(after, '$.uses')), '$.uses')
WHERE table_name = 'study' AND after IS NOT NULL;
DELETE FROM change_row WHERE table_name IN ('particle_counts', 'particle_count_row');
