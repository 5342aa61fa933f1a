-- The third version of the study document: how holes and the valve were read, and what was found on a used filter.

ALTER TABLE reading ADD COLUMN hole INTEGER;       -- its number in the group, from 1
ALTER TABLE reading ADD COLUMN uncertainty TEXT;   -- standard, with its unit
ALTER TABLE reading ADD COLUMN photograph TEXT;    -- file it was read in

-- The core knows the places of the valve and the wires: a new one needs no migration.
CREATE TABLE sample_of_any_kind (
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
INSERT INTO sample_of_any_kind (id, study_id, position, label, status, maker, part_number, price_amount, price_currency, seller, bought, pack, date_code, made,
        origin, tier, restriction, warranty, condition, used_km, used_hours, expectation, cut_method, cut_at, cut_note, media_family,
        media_air_drop_pa, bypass_location, bypass_kind, bypass_spring_material, bypass_stated_low_kpa, bypass_stated_high_kpa, leak_count,
        leak_diameter_mm, capacity_g, stated_collapse_kpa)
SELECT id, study_id, position, label, status, maker, part_number, price_amount, price_currency, seller, bought, pack, date_code, made,
       origin, tier, restriction, warranty, condition, used_km, used_hours, expectation, cut_method, cut_at, cut_note, media_family,
       media_air_drop_pa, bypass_location, bypass_kind, bypass_spring_material, bypass_stated_low_kpa, bypass_stated_high_kpa, leak_count,
       leak_diameter_mm, capacity_g, stated_collapse_kpa FROM sample;
DELETE FROM sqlite_sequence WHERE name = 'sample_of_any_kind';
INSERT INTO sqlite_sequence (name, seq) SELECT 'sample_of_any_kind', seq FROM sqlite_sequence WHERE name = 'sample';
DROP TABLE sample;
ALTER TABLE sample_of_any_kind RENAME TO sample;
CREATE UNIQUE INDEX sample_label ON sample (study_id, label) WHERE status <> 'deleted';

CREATE TABLE evidence_of_any_kind (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    kind       TEXT NOT NULL,           -- field of the sample
    document   TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (sample_id, kind)
) STRICT;
INSERT INTO evidence_of_any_kind SELECT id, sample_id, kind, document FROM evidence;
DELETE FROM sqlite_sequence WHERE name = 'evidence_of_any_kind';
INSERT INTO sqlite_sequence (name, seq) SELECT 'evidence_of_any_kind', seq FROM sqlite_sequence WHERE name = 'evidence';
DROP TABLE evidence;
ALTER TABLE evidence_of_any_kind RENAME TO evidence;

CREATE TABLE study_part (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    kind      TEXT NOT NULL,            -- field of the study
    document  TEXT NOT NULL CHECK (json_valid(document)),
    UNIQUE (study_id, kind)
) STRICT;

CREATE TABLE scenario_of_any_place (
    id                        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id                  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    name                      TEXT NOT NULL,
    loading                   REAL,     -- factor on the media's resistance
    loading_g                 REAL,     -- g captured
    oil_grade                 TEXT,
    stud_bore_mm              REAL,     -- mm
    without_adapter           INTEGER CHECK (without_adapter IN (0, 1)),
    adapter_holes_count       INTEGER,
    adapter_holes_diameter_mm REAL,     -- mm
    bypass_location           TEXT,
    bypass_opening_kpa        REAL,     -- kPa at 20 °C
    leak_count                INTEGER,
    leak_diameter_mm          REAL,     -- mm
    regulator                 TEXT,
    anti_drain_lift_mm        REAL,     -- mm
    UNIQUE (study_id, name)
) STRICT;
INSERT INTO scenario_of_any_place
SELECT id, study_id, name, loading, loading_g, oil_grade, stud_bore_mm, without_adapter, adapter_holes_count,
       adapter_holes_diameter_mm, bypass_location, bypass_opening_kpa, leak_count, leak_diameter_mm, regulator, anti_drain_lift_mm
FROM scenario;
DELETE FROM sqlite_sequence WHERE name = 'scenario_of_any_place';
INSERT INTO sqlite_sequence (name, seq) SELECT 'scenario_of_any_place', seq FROM sqlite_sequence WHERE name = 'scenario';
DROP TABLE scenario;
ALTER TABLE scenario_of_any_place RENAME TO scenario;
