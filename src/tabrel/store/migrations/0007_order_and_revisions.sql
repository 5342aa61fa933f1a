-- Each place is taken once; a claim holds what its kind needs; the reference is a sample, not a label; and the revision
-- of everything that can be changed.

CREATE TABLE hole_group_new (
    id             INTEGER PRIMARY KEY,
    sample_id      INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    adapter_id     INTEGER REFERENCES adapter (study_id) ON DELETE CASCADE,
    placement      TEXT NOT NULL CHECK (placement IN ('inlet', 'centre_tube', 'adapter')),
    position       INTEGER NOT NULL,
    shape          TEXT NOT NULL CHECK (shape IN ('round', 'slot', 'ellipse', 'd', 'rectangle', 'outline')),
    count          INTEGER NOT NULL,
    open_fraction  REAL,                -- 0 to 1
    UNIQUE (sample_id, placement, position),
    UNIQUE (adapter_id, position),
    CHECK ((sample_id IS NULL) <> (adapter_id IS NULL)),
    CHECK ((placement = 'adapter') = (adapter_id IS NOT NULL))
) STRICT;
INSERT INTO hole_group_new (id, sample_id, adapter_id, placement, position, shape, count, open_fraction)
SELECT id, sample_id, adapter_id, placement,
       ROW_NUMBER() OVER (PARTITION BY sample_id, adapter_id, placement ORDER BY position, id) - 1,
       shape, count, open_fraction FROM hole_group;
DROP TABLE hole_group;
ALTER TABLE hole_group_new RENAME TO hole_group;

CREATE TABLE reading_new (
    id                 INTEGER PRIMARY KEY,
    sample_id          INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    hole_group_id      INTEGER REFERENCES hole_group (id) ON DELETE CASCADE,
    quantity_key       TEXT NOT NULL,   -- reading key, or the dimension of a hole
    position           INTEGER NOT NULL,
    text               TEXT NOT NULL,   -- with its unit
    taken_at           TEXT,            -- ISO time, UTC; NULL where a document did not say
    instrument         TEXT,            -- NULL: the quantity's usual one
    provenance         TEXT CHECK (provenance IN ('measured', 'derived', 'published', 'by_eye', 'assumed')), -- NULL: measured
    note               TEXT,
    insisted           INTEGER CHECK (insisted IN (0, 1)), -- 1: it was questioned, and the analyst insisted
    struck_out_at      TEXT,
    struck_out_reason  TEXT,
    UNIQUE (sample_id, quantity_key, position),
    UNIQUE (hole_group_id, quantity_key, position),
    CHECK ((sample_id IS NULL) <> (hole_group_id IS NULL)),
    CHECK ((struck_out_at IS NULL) = (struck_out_reason IS NULL))
) STRICT;
INSERT INTO reading_new (id, sample_id, hole_group_id, quantity_key, position, text, taken_at, instrument, provenance, note,
                         insisted, struck_out_at, struck_out_reason)
SELECT id, sample_id, hole_group_id, quantity_key,
       ROW_NUMBER() OVER (PARTITION BY sample_id, hole_group_id, quantity_key ORDER BY position, id) - 1,
       text, taken_at, instrument, provenance, note, insisted, struck_out_at, struck_out_reason FROM reading;
DROP TABLE reading;
ALTER TABLE reading_new RENAME TO reading;

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
    stale               TEXT,           -- why it no longer holds
    UNIQUE (sample_id, position),
    CHECK ((kind = 'efficiency') = (efficiency_percent IS NOT NULL)),
    CHECK (kind <> 'efficiency' OR relation IS NOT NULL),
    CHECK (kind <> 'words' OR wording IS NOT NULL),
    CHECK ((kind IN ('reading', 'observation', 'result')) = (key IS NOT NULL)),
    CHECK ((key IS NULL) = (value IS NULL))
) STRICT;
-- What does not belong to a claim's kind goes on in its wording: nothing is lost.
INSERT INTO claim_new (id, sample_id, position, kind, source, relation, efficiency_percent, size_um, scale, standard, key, value,
                       wording, speaker, seen, stale)
SELECT id, sample_id, ROW_NUMBER() OVER (PARTITION BY sample_id ORDER BY position, id) - 1, kind, source, relation,
       CASE WHEN kind = 'efficiency' THEN efficiency_percent END, size_um, scale, standard,
       CASE WHEN kind IN ('reading', 'observation', 'result') THEN key END,
       CASE WHEN kind IN ('reading', 'observation', 'result') THEN value END,
       NULLIF(TRIM(COALESCE(wording, '')
           || CASE WHEN kind <> 'efficiency' AND efficiency_percent IS NOT NULL
                   THEN printf(' (%g %%)', efficiency_percent) ELSE '' END
           || CASE WHEN kind IN ('efficiency', 'words') AND COALESCE(key, value) IS NOT NULL
                   THEN printf(' (%s: %s)', COALESCE(key, ''), COALESCE(value, '')) ELSE '' END), ''),
       speaker, seen, stale FROM claim;
DROP TABLE claim;
ALTER TABLE claim_new RENAME TO claim;

ALTER TABLE study ADD COLUMN reference_sample_id INTEGER REFERENCES sample (id) ON DELETE SET NULL; -- others are compared with it
UPDATE study SET reference_sample_id = (SELECT id FROM sample WHERE sample.study_id = study.id AND label = study.reference);
UPDATE change_row SET before = json_remove(json_set(before, '$.reference_sample_id',
    (SELECT id FROM sample WHERE study_id = row_id AND label = json_extract(before, '$.reference'))), '$.reference')
WHERE table_name = 'study' AND before IS NOT NULL;
UPDATE change_row SET after = json_remove(json_set(after, '$.reference_sample_id',
    (SELECT id FROM sample WHERE study_id = row_id AND label = json_extract(after, '$.reference'))), '$.reference')
WHERE table_name = 'study' AND after IS NOT NULL;
ALTER TABLE study DROP COLUMN reference;

-- How often a study was changed when something of it changed last; undo and redo raise it as well, nothing lowers it.
CREATE TABLE revision (
    study_id   INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    sample_id  INTEGER NOT NULL,        -- 0: of the whole study
    thing      TEXT NOT NULL,           -- key of a fact, or table and id of a row, such as reading/12
    revision   INTEGER NOT NULL,
    PRIMARY KEY (study_id, sample_id, thing)
) STRICT, WITHOUT ROWID;
