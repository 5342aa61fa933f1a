-- Whose file this is, in its header ("Tabr"): another program's database is never taken over.
PRAGMA application_id = 0x54616272;

-- A study and everything in it. Column names carry the unit where the value is not SI; checks that the core makes are not made again.
CREATE TABLE study (
    id                   INTEGER PRIMARY KEY AUTOINCREMENT,
    name                 TEXT NOT NULL,
    question             TEXT,
    created_at           TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    intended_uses        TEXT,
    price_class          TEXT,
    reference_sample_id  INTEGER REFERENCES sample (id) ON DELETE SET NULL,
    status               TEXT NOT NULL DEFAULT 'in_use' CHECK (status IN ('in_use', 'archived', 'deleted')),
    interval_school      TEXT
) STRICT;

-- What a study has one of, or one list of: oil, circuit, plans, intervals, logs, instruments. Each is a part of the study document.
CREATE TABLE study_part (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    kind      TEXT NOT NULL,            -- field of the study
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, kind)
) STRICT;

CREATE TABLE sample (
    id                     INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id               INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position               INTEGER NOT NULL,
    label                  TEXT NOT NULL,
    status                 TEXT NOT NULL DEFAULT 'in_use' CHECK (status IN ('in_use', 'archived', 'deleted')),
    kind                   TEXT,
    maker                  TEXT,
    part_number            TEXT,
    price_amount           REAL,        -- in price_currency
    price_currency         TEXT,
    seller                 TEXT,
    bought                 TEXT,        -- ISO date
    pack                   TEXT,
    date_code              TEXT,        -- as stamped
    made                   TEXT,        -- ISO date, month or year
    origin                 TEXT,
    tier                   TEXT,
    restriction            TEXT,
    warranty               TEXT,
    condition              TEXT,        -- new, or used and how long
    used_km                REAL,        -- km
    used_hours             REAL,        -- h
    expectation            TEXT,
    cut_method             TEXT,
    cut_at                 TEXT,        -- ISO time, UTC
    cut_note               TEXT,
    media_family           TEXT,
    media_air_drop_pa      REAL,        -- Pa
    bypass_location        TEXT,
    bypass_kind            TEXT,        -- how it is made
    bypass_spring_material TEXT,
    bypass_spring_ends     TEXT,
    bypass_seat_mark       TEXT,        -- edge of the seat that the seal marked
    bypass_opening_at      ANY,         -- L/min, or 'first_drip'
    bypass_stated_low_kpa  REAL,        -- kPa; the one figure, or the lower end of a band
    bypass_stated_high_kpa REAL,        -- kPa; upper end of a band, NULL for one figure
    leak_count             INTEGER,
    leak_diameter_mm       REAL,        -- mm
    capacity_g             REAL,        -- g
    stated_collapse_kpa    REAL,        -- kPa
    UNIQUE (study_id, position)
) STRICT;
CREATE UNIQUE INDEX sample_label ON sample (study_id, label) WHERE status <> 'deleted';

-- Equal holes: of a sample, or of the adapter of the study's circuit.
CREATE TABLE hole_group (
    id             INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id      INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    study_id       INTEGER REFERENCES study (id) ON DELETE CASCADE, -- of its adapter
    placement      TEXT NOT NULL CHECK (placement IN ('inlet', 'centre_tube', 'adapter')),
    position       INTEGER NOT NULL,
    shape          TEXT NOT NULL,
    count          INTEGER NOT NULL,
    open_fraction  REAL,                -- 0 to 1
    copied_from    TEXT,                -- label or template; NULL: of this filter itself
    UNIQUE (sample_id, placement, position),
    UNIQUE (study_id, position),
    CHECK ((sample_id IS NULL) <> (study_id IS NULL)),
    CHECK ((placement = 'adapter') = (study_id IS NOT NULL))
) STRICT;

CREATE TABLE outline_point (
    id             INTEGER PRIMARY KEY AUTOINCREMENT,
    hole_group_id  INTEGER NOT NULL REFERENCES hole_group (id) ON DELETE CASCADE,
    position       INTEGER NOT NULL,
    x_mm           REAL NOT NULL,       -- mm
    y_mm           REAL NOT NULL,       -- mm
    UNIQUE (hole_group_id, position)
) STRICT;

-- One reading as typed. It is never changed and never deleted; it can be set aside with a reason.
CREATE TABLE reading (
    id                 INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id          INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    hole_group_id      INTEGER REFERENCES hole_group (id) ON DELETE CASCADE,
    quantity_key       TEXT NOT NULL,   -- reading key, or the dimension of a hole
    position           INTEGER NOT NULL,
    text               TEXT NOT NULL,   -- with its unit
    taken_at           TEXT,            -- ISO time, UTC; NULL where a document did not say
    instrument         TEXT,            -- NULL: the quantity's usual one
    provenance         TEXT CHECK (provenance IN ('measured', 'derived', 'published', 'by_eye', 'assumed')), -- NULL: measured
    note               TEXT,
    confirmed          INTEGER CHECK (confirmed IN (0, 1)), -- 1: it was questioned, and meant as typed
    set_aside_at       TEXT,
    set_aside_reason   TEXT,
    copied_from        TEXT,            -- label or template; NULL: of this filter itself
    hole               INTEGER,         -- its number in the group, from 1
    uncertainty        TEXT,            -- standard, with its unit
    photograph         TEXT,            -- file it was read in
    UNIQUE (sample_id, quantity_key, position),
    UNIQUE (hole_group_id, quantity_key, position),
    CHECK ((sample_id IS NULL) <> (hole_group_id IS NULL)),
    CHECK ((set_aside_at IS NULL) = (set_aside_reason IS NULL))
) STRICT;

-- Why a quantity has no value.
CREATE TABLE quantity_state (
    id            INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id     INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    quantity_key  TEXT NOT NULL,
    state         TEXT NOT NULL CHECK (state IN ('not_measured', 'could_not_be_found', 'out_of_date', 'not_applicable',
                                                 'withheld', 'lost')),
    UNIQUE (sample_id, quantity_key)
) STRICT;

CREATE TABLE observation (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    key        TEXT NOT NULL,
    text       TEXT NOT NULL,
    UNIQUE (sample_id, key)
) STRICT;

-- What is said of a sample: in words, or of a thing that can be held against what was found.
CREATE TABLE claim (
    id                  INTEGER PRIMARY KEY AUTOINCREMENT,
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
    copied_from         TEXT,           -- label or template; NULL: of this filter itself
    UNIQUE (sample_id, position),
    CHECK ((kind = 'efficiency') = (efficiency_percent IS NOT NULL)),
    CHECK (kind <> 'efficiency' OR relation IS NOT NULL),
    CHECK (kind <> 'words' OR wording IS NOT NULL),
    CHECK ((kind IN ('reading', 'observation', 'result')) = (key IS NOT NULL)),
    CHECK ((key IS NULL) = (value IS NULL))
) STRICT;

CREATE TABLE offer (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
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

-- Counts, benches and the like of a sample, each a part of the study document.
CREATE TABLE evidence (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    kind       TEXT NOT NULL,           -- field of the sample
    document   TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (sample_id, kind)
) STRICT;

-- What of a sample was copied from another or from a template, and not confirmed since.
CREATE TABLE copied_fact (
    id           INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id    INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    thing        TEXT NOT NULL,        -- details/KEY, observations/KEY or states/KEY
    copied_from  TEXT NOT NULL,
    UNIQUE (sample_id, thing)
) STRICT;

-- A number of a study or a sample as it was typed.
CREATE TABLE typed_number (
    id          INTEGER PRIMARY KEY AUTOINCREMENT,
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

-- Uses, scenarios and lines of arithmetic, each a part of the study document.
CREATE TABLE intended_use (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, position)
) STRICT;

CREATE TABLE scenario (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    name      TEXT NOT NULL,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, name)
) STRICT;

CREATE TABLE duty_cycle (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    name      TEXT NOT NULL,
    csv       TEXT NOT NULL,            -- as it was read
    UNIQUE (study_id, name)
) STRICT;

CREATE TABLE arithmetic_line (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position  INTEGER NOT NULL,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, position)
) STRICT;

-- Reports as they were issued: their bytes and the study document they were made from.
CREATE TABLE issued_report (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id   INTEGER NOT NULL REFERENCES study (id),
    number     TEXT NOT NULL UNIQUE,
    issued_at  TEXT NOT NULL,                              -- ISO time, UTC
    title      TEXT NOT NULL,
    document   TEXT NOT NULL CHECK (json_valid(document)), -- the study document at that moment
    pdf        BLOB NOT NULL,
    sha256     TEXT NOT NULL                               -- of the PDF
) STRICT;
CREATE INDEX issued_report_of_study ON issued_report (study_id);
CREATE TRIGGER issued_report_stays BEFORE UPDATE ON issued_report
BEGIN
    SELECT RAISE(ABORT, 'an issued report is kept as it was');
END;
CREATE TRIGGER issued_report_is_kept BEFORE DELETE ON issued_report
BEGIN
    SELECT RAISE(ABORT, 'an issued report is kept');
END;

-- The highest number given to a report of each year: it stays where an older copy takes the place of the database.
CREATE TABLE report_number (
    year     INTEGER PRIMARY KEY,
    highest  INTEGER NOT NULL
) STRICT;
CREATE TRIGGER report_number_only_rises BEFORE UPDATE ON report_number WHEN NEW.highest < OLD.highest
BEGIN
    SELECT RAISE(ABORT, 'a number that was given is not given again');
END;
CREATE TRIGGER report_number_is_kept BEFORE DELETE ON report_number
BEGIN
    SELECT RAISE(ABORT, 'a number that was given is kept');
END;

-- Engines, templates, date codes and preferences belong to no study.
CREATE TABLE kept_engine (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    name      TEXT NOT NULL UNIQUE,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    kept_at   TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE TABLE template (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    name       TEXT NOT NULL UNIQUE,
    parts      TEXT NOT NULL,          -- JSON list
    document   TEXT NOT NULL,          -- JSON of a sample of the study document
    saved_at   TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    removed_at TEXT                    -- NULL: it is offered
) STRICT;

CREATE TABLE date_code_rule (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    name     TEXT NOT NULL UNIQUE,
    pattern  TEXT NOT NULL,
    maker    TEXT                -- whose codes; NULL: everybody's
) STRICT;

CREATE TABLE preference (
    observation  TEXT PRIMARY KEY,      -- key of the observation
    preferred    TEXT NOT NULL CHECK (json_valid(preferred))  -- lists of choices, ties in one list
) STRICT, WITHOUT ROWID;

-- One thing a person did: the rows it changed stand in `change_row`, as they were before and after.
CREATE TABLE change (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id   INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    sample_id  INTEGER,                 -- NULL: it concerns the whole study
    words      TEXT NOT NULL,           -- what was done
    place      TEXT NOT NULL,           -- key of the field, fact or part it was done at
    made_at    TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    undone_at  TEXT,
    made_in    TEXT                     -- window
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

-- How often a study had been changed when one thing of it changed last.
CREATE TABLE revision (
    study_id   INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    sample_id  INTEGER NOT NULL,        -- 0: of the whole study
    thing      TEXT NOT NULL,           -- key of a fact, or table and id of a row, such as reading/12
    revision   INTEGER NOT NULL,
    PRIMARY KEY (study_id, sample_id, thing)
) STRICT, WITHOUT ROWID;

-- Results that stay: computed once, and read as long as nothing they rest on is another.
CREATE TABLE stored_result (
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    kind       TEXT NOT NULL,           -- summary, behaviour
    basis      TEXT NOT NULL,           -- revision of the sample, of oil and engine, version of the method
    document   TEXT NOT NULL,
    PRIMARY KEY (sample_id, kind)
) STRICT, WITHOUT ROWID;

-- Which database this is: another one once a copy was put in its place, so that no window writes into what it has not seen.
CREATE TABLE identity (
    id    INTEGER PRIMARY KEY CHECK (id = 1),
    name  TEXT NOT NULL
) STRICT;
INSERT INTO identity (id, name) VALUES (1, lower(hex(randomblob(8))));
