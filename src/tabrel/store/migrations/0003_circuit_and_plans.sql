-- Where oil and engine come from, engines kept for other studies, scenarios, duty cycles and the plan of a start.

ALTER TABLE oil ADD COLUMN provenance TEXT
    CHECK (provenance IN ('measured', 'derived', 'published', 'by_eye', 'assumed'));
ALTER TABLE viscosity_point ADD COLUMN high_shear INTEGER CHECK (high_shear IN (0, 1));
ALTER TABLE circuit ADD COLUMN provenance TEXT
    CHECK (provenance IN ('measured', 'derived', 'published', 'by_eye', 'assumed'));
ALTER TABLE sample ADD COLUMN capacity_g REAL;  -- g of dirt at the terminal loading

-- An engine's oil circuit as a part of a study document; it belongs to no study and no filter.
CREATE TABLE kept_engine (
    id        INTEGER PRIMARY KEY,
    name      TEXT NOT NULL UNIQUE,
    document  TEXT NOT NULL CHECK (json_valid(document)),
    kept_at   TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE TABLE scenario (
    id                        INTEGER PRIMARY KEY,
    study_id                  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    name                      TEXT NOT NULL,
    loading                   REAL,     -- factor on the media's resistance
    oil_grade                 TEXT,
    stud_bore_mm              REAL,     -- mm
    without_adapter           INTEGER CHECK (without_adapter IN (0, 1)),
    adapter_holes_count       INTEGER,
    adapter_holes_diameter_mm REAL,     -- mm
    bypass_location           TEXT CHECK (bypass_location IN ('dome_end', 'thread_end', 'block', 'adapter', 'none')),
    bypass_opening_kpa        REAL,     -- kPa at 20 °C
    leak_count                INTEGER,
    leak_diameter_mm          REAL,     -- mm
    regulator                 TEXT CHECK (regulator IN ('stuck_open', 'stuck_shut')),
    anti_drain_lift_mm        REAL,     -- mm
    UNIQUE (study_id, name)
) STRICT;

CREATE TABLE duty_cycle (
    id        INTEGER PRIMARY KEY,
    study_id  INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    name      TEXT NOT NULL,
    csv       TEXT NOT NULL,            -- as it was read
    UNIQUE (study_id, name)
) STRICT;

CREATE TABLE warm_up_plan (
    study_id               INTEGER PRIMARY KEY REFERENCES study (id) ON DELETE CASCADE,
    start_c                REAL,        -- °C
    end_c                  REAL,        -- °C
    time_constant_min      REAL,        -- min
    can_time_constant_min  REAL,        -- min
    gallery_volume_l       REAL,        -- L
    duty_cycle             TEXT,
    ingress_g_h            REAL,        -- g/h
    terminal_ratio         REAL,        -- factor on the media's resistance
    sump_volume_l          REAL         -- L
) STRICT;
