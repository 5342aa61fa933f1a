-- A study and everything in it. Column names carry the unit where the value is not SI.

CREATE TABLE study (
    id          INTEGER PRIMARY KEY,
    name        TEXT NOT NULL,
    question    TEXT,
    created_at  TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now'))
) STRICT;

CREATE TABLE oil (
    study_id           INTEGER PRIMARY KEY REFERENCES study (id) ON DELETE CASCADE,
    name               TEXT,
    density_15c_kg_m3  REAL NOT NULL,   -- kg/m3 at 15 °C
    pumping_limit_c    REAL             -- °C
) STRICT;

CREATE TABLE viscosity_point (
    study_id         INTEGER NOT NULL REFERENCES oil (study_id) ON DELETE CASCADE,
    position         INTEGER NOT NULL,
    temperature_c    REAL NOT NULL,     -- °C
    kinematic_mm2_s  REAL,              -- mm2/s
    dynamic_mpa_s    REAL,              -- mPa s
    PRIMARY KEY (study_id, position),
    CHECK ((kinematic_mm2_s IS NULL) <> (dynamic_mpa_s IS NULL))
) STRICT;

CREATE TABLE circuit (
    study_id                   INTEGER PRIMARY KEY REFERENCES study (id) ON DELETE CASCADE,
    name                       TEXT,
    pump_displacement_cm3_rev  REAL,    -- cm3 per revolution
    gauge                      TEXT CHECK (gauge IN ('pump', 'filter_inlet', 'gallery'))
) STRICT;

CREATE TABLE pump_efficiency (
    study_id       INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    fraction       REAL NOT NULL,       -- 0 to 1
    speed_rpm      REAL NOT NULL,       -- rpm
    pressure_kpa   REAL NOT NULL,       -- kPa
    temperature_c  REAL NOT NULL        -- °C
) STRICT;

CREATE TABLE regulator (
    study_id             INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    opening_kpa          REAL NOT NULL, -- kPa
    full_flow_rise_kpa   REAL NOT NULL, -- kPa
    full_flow_speed_rpm  REAL NOT NULL, -- rpm
    sense                TEXT CHECK (sense IN ('pump', 'gallery')),
    safety_kpa           REAL           -- kPa
) STRICT;

CREATE TABLE stated_loss (
    study_id       INTEGER NOT NULL REFERENCES circuit (study_id) ON DELETE CASCADE,
    part           TEXT NOT NULL CHECK (part IN ('cooler', 'head')),
    loss_kpa       REAL NOT NULL,       -- kPa
    flow_l_min     REAL NOT NULL,       -- L/min
    temperature_c  REAL NOT NULL,       -- °C
    viscous_share  REAL,                -- 0 to 1
    bypass_kpa     REAL,                -- kPa
    PRIMARY KEY (study_id, part)
) STRICT;

CREATE TABLE engine_hot_point (
    study_id          INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    gallery_kpa       REAL NOT NULL,    -- kPa
    speed_rpm         REAL NOT NULL,    -- rpm
    temperature_c     REAL NOT NULL,    -- °C
    jet_share         REAL,             -- 0 to 1
    jet_opening_kpa   REAL,             -- kPa
    jet_count         INTEGER,
    jet_length_ratio  REAL,             -- length over diameter
    bearing_rise_k    REAL,             -- K
    bearing_heating   REAL              -- 0 to 1
) STRICT;

CREATE TABLE stud (
    study_id   INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    bore_mm    REAL NOT NULL,           -- mm
    length_mm  REAL NOT NULL            -- mm
) STRICT;

CREATE TABLE adapter (
    study_id           INTEGER PRIMARY KEY REFERENCES circuit (study_id) ON DELETE CASCADE,
    wall_mm            REAL NOT NULL,   -- mm
    turn_deg           REAL NOT NULL,   -- degrees
    reference_bore_mm  REAL             -- mm
) STRICT;

CREATE TABLE sample (
    id                     INTEGER PRIMARY KEY,
    study_id               INTEGER NOT NULL REFERENCES study (id) ON DELETE CASCADE,
    position               INTEGER NOT NULL,
    label                  TEXT NOT NULL,
    maker                  TEXT,
    part_number            TEXT,
    price_amount           REAL,        -- in price_currency
    price_currency         TEXT,
    condition              TEXT,        -- new, or used and how long
    media_family           TEXT CHECK (media_family IN ('cellulose', 'blend', 'synthetic')),
    media_air_drop_pa      REAL,        -- Pa
    bypass_location        TEXT CHECK (bypass_location IN ('dome_end', 'thread_end', 'block', 'adapter', 'none')),
    bypass_kind            TEXT,        -- how it is made
    bypass_spring_material TEXT CHECK (bypass_spring_material IN ('music_wire', 'stainless_302', 'chrome_silicon')),
    bypass_stated_low_kpa  REAL,        -- kPa; the one figure, or the lower end of a band
    bypass_stated_high_kpa REAL,        -- kPa; upper end of a band, NULL for one figure
    leak_count             INTEGER,
    leak_diameter_mm       REAL,        -- mm
    UNIQUE (study_id, label),
    UNIQUE (study_id, position)
) STRICT;

CREATE TABLE observation (
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    key        TEXT NOT NULL,
    text       TEXT NOT NULL,
    PRIMARY KEY (sample_id, key)
) STRICT;

CREATE TABLE claim (
    sample_id           INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    position            INTEGER NOT NULL,
    kind                TEXT NOT NULL,
    relation            TEXT NOT NULL CHECK (relation IN ('=', '>=', '>')),
    efficiency_percent  REAL NOT NULL,  -- %
    source              TEXT NOT NULL,
    size_um             REAL,           -- µm on `scale`
    scale               TEXT CHECK (scale IN ('um(c)', 'um(b)', 'um')),
    standard            TEXT,
    seen                TEXT,           -- ISO date
    PRIMARY KEY (sample_id, position)
) STRICT;

CREATE TABLE particle_counts (
    sample_id  INTEGER PRIMARY KEY REFERENCES sample (id) ON DELETE CASCADE,
    scale      TEXT NOT NULL CHECK (scale IN ('um(c)', 'um(b)', 'um')),
    volume_ml  REAL NOT NULL,           -- mL
    dilution   REAL NOT NULL
) STRICT;

CREATE TABLE particle_count_row (
    sample_id   INTEGER NOT NULL REFERENCES particle_counts (sample_id) ON DELETE CASCADE,
    position    INTEGER NOT NULL,
    size_um     REAL NOT NULL,          -- µm on the counts' scale
    upstream    INTEGER NOT NULL,
    downstream  INTEGER NOT NULL,
    PRIMARY KEY (sample_id, position)
) STRICT;

-- A group of equal holes: of a sample, or of the engine's adapter.
CREATE TABLE hole_group (
    id             INTEGER PRIMARY KEY,
    sample_id      INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    adapter_id     INTEGER REFERENCES adapter (study_id) ON DELETE CASCADE,
    placement      TEXT NOT NULL CHECK (placement IN ('inlet', 'centre_tube', 'adapter')),
    position       INTEGER NOT NULL,
    shape          TEXT NOT NULL CHECK (shape IN ('round', 'slot', 'ellipse', 'd', 'rectangle', 'outline')),
    count          INTEGER NOT NULL,
    open_fraction  REAL,                -- 0 to 1
    CHECK ((sample_id IS NULL) <> (adapter_id IS NULL)),
    CHECK ((placement = 'adapter') = (adapter_id IS NOT NULL))
) STRICT;

CREATE INDEX hole_group_sample ON hole_group (sample_id, placement, position);
CREATE INDEX hole_group_adapter ON hole_group (adapter_id, position);

CREATE TABLE outline_point (
    hole_group_id  INTEGER NOT NULL REFERENCES hole_group (id) ON DELETE CASCADE,
    position       INTEGER NOT NULL,
    x_mm           REAL NOT NULL,       -- mm
    y_mm           REAL NOT NULL,       -- mm
    PRIMARY KEY (hole_group_id, position)
) STRICT;

-- One reading as typed. It is never changed and never deleted; it can be struck out with a reason.
CREATE TABLE reading (
    id                 INTEGER PRIMARY KEY,
    sample_id          INTEGER REFERENCES sample (id) ON DELETE CASCADE,
    hole_group_id      INTEGER REFERENCES hole_group (id) ON DELETE CASCADE,
    quantity_key       TEXT NOT NULL,   -- reading key, or the dimension of a hole
    position           INTEGER NOT NULL,
    text               TEXT NOT NULL,   -- with its unit
    taken_at           TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ', 'now')),
    struck_out_at      TEXT,
    struck_out_reason  TEXT,
    CHECK ((sample_id IS NULL) <> (hole_group_id IS NULL)),
    CHECK ((struck_out_at IS NULL) = (struck_out_reason IS NULL))
) STRICT;

CREATE INDEX reading_sample ON reading (sample_id, quantity_key, position);
CREATE INDEX reading_hole_group ON reading (hole_group_id, quantity_key, position);
