-- The bench before the cut: what was recorded of each reading, states that are no values, facts of intake,
-- claims of every kind, the cut, and a journal from which every change can be taken back.

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
    CHECK ((sample_id IS NULL) <> (hole_group_id IS NULL)),
    CHECK ((struck_out_at IS NULL) = (struck_out_reason IS NULL))
) STRICT;

INSERT INTO reading_new (id, sample_id, hole_group_id, quantity_key, position, text, taken_at, struck_out_at, struck_out_reason)
SELECT id, sample_id, hole_group_id, quantity_key, position, text, taken_at, struck_out_at, struck_out_reason FROM reading;
DROP TABLE reading;
ALTER TABLE reading_new RENAME TO reading;
CREATE INDEX reading_sample ON reading (sample_id, quantity_key, position);
CREATE INDEX reading_hole_group ON reading (hole_group_id, quantity_key, position);

-- Why a quantity has no value.
CREATE TABLE quantity_state (
    id            INTEGER PRIMARY KEY,
    sample_id     INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    quantity_key  TEXT NOT NULL,
    state         TEXT NOT NULL CHECK (state IN ('not_measured', 'could_not_be_found', 'out_of_date', 'not_applicable',
                                                 'withheld', 'lost')),
    UNIQUE (sample_id, quantity_key)
) STRICT;

ALTER TABLE study ADD COLUMN reference TEXT;      -- label of the sample others are compared with
ALTER TABLE study ADD COLUMN uses TEXT;
ALTER TABLE study ADD COLUMN price_class TEXT;

ALTER TABLE sample ADD COLUMN seller TEXT;
ALTER TABLE sample ADD COLUMN bought TEXT;        -- ISO date
ALTER TABLE sample ADD COLUMN pack TEXT;
ALTER TABLE sample ADD COLUMN date_code TEXT;     -- as stamped
ALTER TABLE sample ADD COLUMN made TEXT;          -- ISO date, month or year
ALTER TABLE sample ADD COLUMN origin TEXT;
ALTER TABLE sample ADD COLUMN used_km REAL;       -- km
ALTER TABLE sample ADD COLUMN used_hours REAL;    -- h
ALTER TABLE sample ADD COLUMN expectation TEXT;
ALTER TABLE sample ADD COLUMN cut_method TEXT;
ALTER TABLE sample ADD COLUMN cut_at TEXT;        -- ISO time, UTC
ALTER TABLE sample ADD COLUMN cut_note TEXT;

ALTER TABLE stud ADD COLUMN least_bore_mm REAL;    -- mm, over engines
ALTER TABLE stud ADD COLUMN greatest_bore_mm REAL; -- mm, over engines

CREATE TABLE claim_new (
    id                  INTEGER PRIMARY KEY,
    sample_id           INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    position            INTEGER NOT NULL,
    kind                TEXT NOT NULL CHECK (kind IN ('efficiency', 'reading', 'observation', 'words')),
    source              TEXT NOT NULL,
    relation            TEXT CHECK (relation IN ('=', '>=', '>')),
    efficiency_percent  REAL,           -- %
    size_um             REAL,           -- µm on `scale`
    scale               TEXT CHECK (scale IN ('um(c)', 'um(b)', 'um')),
    standard            TEXT,
    key                 TEXT,           -- reading or observation the claim is about
    value               TEXT,           -- with its unit
    wording             TEXT,           -- as printed or said
    speaker             TEXT CHECK (speaker IN ('maker', 'seller', 'independent', 'vehicle_maker')),
    seen                TEXT,           -- ISO date
    stale               TEXT            -- why it no longer holds
) STRICT;

INSERT INTO claim_new (sample_id, position, kind, source, relation, efficiency_percent, size_um, scale, standard, seen)
SELECT sample_id, position, kind, source, relation, efficiency_percent, size_um, scale, standard, seen FROM claim;
DROP TABLE claim;
ALTER TABLE claim_new RENAME TO claim;
CREATE INDEX claim_sample ON claim (sample_id, position);

-- One thing a person did: the rows it changed stand in `change_row`, as they were before and after.
CREATE TABLE change (
    id         INTEGER PRIMARY KEY,
    study_id   INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    sample_id  INTEGER,                 -- NULL: it concerns the whole study
    words      TEXT NOT NULL,           -- what was done
    place      TEXT NOT NULL,           -- key of the field, fact or part it was done at
    made_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    undone_at  TEXT
) STRICT;
CREATE INDEX change_study ON change (study_id, sample_id, id);

CREATE TABLE change_row (
    id          INTEGER PRIMARY KEY,
    change_id   INTEGER NOT NULL REFERENCES change (id) ON DELETE CASCADE,
    table_name  TEXT NOT NULL,
    row_id      INTEGER NOT NULL,
    before      TEXT,                   -- JSON of the row; NULL: there was none
    after       TEXT                    -- JSON of the row; NULL: there is none
) STRICT;
CREATE INDEX change_row_change ON change_row (change_id, id);
CREATE INDEX change_row_row ON change_row (table_name, row_id);

-- Which change is being recorded; read by the triggers, empty outside a recorded transaction.
CREATE TABLE recording (
    id         INTEGER PRIMARY KEY CHECK (id = 1),
    change_id  INTEGER
) STRICT;
INSERT INTO recording (id, change_id) VALUES (1, NULL);
