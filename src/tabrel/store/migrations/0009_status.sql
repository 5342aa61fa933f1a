-- What is put away or deleted stays there, and can be put back; the label of a deleted sample is free again.

CREATE TABLE sample_new (
    id                     INTEGER PRIMARY KEY,
    study_id               INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position               INTEGER NOT NULL,
    label                  TEXT NOT NULL,
    status                 TEXT NOT NULL DEFAULT 'in_use' CHECK (status IN ('in_use', 'archived', 'deleted')),
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
    condition              TEXT,        -- new, or used and how long
    used_km                REAL,        -- km
    used_hours             REAL,        -- h
    expectation            TEXT,
    cut_method             TEXT,
    cut_at                 TEXT,        -- ISO time, UTC
    cut_note               TEXT,
    media_family           TEXT CHECK (media_family IN ('cellulose', 'blend', 'synthetic')),
    media_air_drop_pa      REAL,        -- Pa
    bypass_location        TEXT CHECK (bypass_location IN ('dome_end', 'thread_end', 'block', 'adapter', 'none')),
    bypass_kind            TEXT,        -- how it is made
    bypass_spring_material TEXT CHECK (bypass_spring_material IN ('music_wire', 'stainless_302', 'chrome_silicon')),
    bypass_stated_low_kpa  REAL,        -- kPa; the one figure, or the lower end of a band
    bypass_stated_high_kpa REAL,        -- kPa; upper end of a band, NULL for one figure
    leak_count             INTEGER,
    leak_diameter_mm       REAL,        -- mm
    capacity_g             REAL,        -- g
    stated_collapse_kpa    REAL,        -- kPa
    UNIQUE (study_id, position)
) STRICT;
INSERT INTO sample_new (id, study_id, position, label, maker, part_number, price_amount, price_currency, seller, bought, pack, date_code,
                        made, origin, condition, used_km, used_hours, expectation, cut_method, cut_at, cut_note, media_family,
                        media_air_drop_pa, bypass_location, bypass_kind, bypass_spring_material, bypass_stated_low_kpa,
                        bypass_stated_high_kpa, leak_count, leak_diameter_mm, capacity_g, stated_collapse_kpa)
SELECT id, study_id, position, label, maker, part_number, price_amount, price_currency, seller, bought, pack, date_code,
       made, origin, condition, used_km, used_hours, expectation, cut_method, cut_at, cut_note, media_family,
       media_air_drop_pa, bypass_location, bypass_kind, bypass_spring_material, bypass_stated_low_kpa,
       bypass_stated_high_kpa, leak_count, leak_diameter_mm, capacity_g, stated_collapse_kpa FROM sample;
DROP TABLE sample;
ALTER TABLE sample_new RENAME TO sample;
CREATE UNIQUE INDEX sample_label ON sample (study_id, label) WHERE status <> 'deleted';

ALTER TABLE study ADD COLUMN status TEXT NOT NULL DEFAULT 'in_use' CHECK (status IN ('in_use', 'archived', 'deleted'));
