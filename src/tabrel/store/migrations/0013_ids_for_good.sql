-- The id of a row is never given to another one: undo and redo put rows back by their ids, and would change a stranger's.

-- Rows that had no id of their own get one; until now SQLite numbered them behind the scenes, and the journal knows them by that.
CREATE TABLE observation_with_id (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    key        TEXT NOT NULL,
    text       TEXT NOT NULL,
    UNIQUE (sample_id, key)
) STRICT;
INSERT INTO observation_with_id SELECT rowid, sample_id, key, text FROM observation;
DROP TABLE observation;
ALTER TABLE observation_with_id RENAME TO observation;

CREATE TABLE viscosity_point_with_id (
    id               INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id         INTEGER NOT NULL REFERENCES oil (study_id) ON DELETE CASCADE,
    position         INTEGER NOT NULL,
    temperature_c    REAL NOT NULL,     -- °C
    kinematic_mm2_s  REAL,              -- mm2/s
    dynamic_mpa_s    REAL,              -- mPa s
    high_shear       INTEGER CHECK (high_shear IN (0, 1)),
    UNIQUE (study_id, position),
    CHECK ((kinematic_mm2_s IS NULL) <> (dynamic_mpa_s IS NULL))
) STRICT;
INSERT INTO viscosity_point_with_id
SELECT rowid, study_id, position, temperature_c, kinematic_mm2_s, dynamic_mpa_s, high_shear FROM viscosity_point;
DROP TABLE viscosity_point;
ALTER TABLE viscosity_point_with_id RENAME TO viscosity_point;

CREATE TABLE stated_loss_with_id (
    id             INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id       INTEGER NOT NULL REFERENCES circuit (study_id) ON DELETE CASCADE,
    part           TEXT NOT NULL CHECK (part IN ('cooler', 'head')),
    loss_kpa       REAL NOT NULL,       -- kPa
    flow_l_min     REAL NOT NULL,       -- L/min
    temperature_c  REAL NOT NULL,       -- °C
    viscous_share  REAL,                -- 0 to 1
    bypass_kpa     REAL,                -- kPa
    UNIQUE (study_id, part)
) STRICT;
INSERT INTO stated_loss_with_id
SELECT rowid, study_id, part, loss_kpa, flow_l_min, temperature_c, viscous_share, bypass_kpa FROM stated_loss;
DROP TABLE stated_loss;
ALTER TABLE stated_loss_with_id RENAME TO stated_loss;

CREATE TABLE outline_point_with_id (
    id             INTEGER PRIMARY KEY AUTOINCREMENT,
    hole_group_id  INTEGER NOT NULL REFERENCES hole_group (id) ON DELETE CASCADE,
    position       INTEGER NOT NULL,
    x_mm           REAL NOT NULL,       -- mm
    y_mm           REAL NOT NULL,       -- mm
    UNIQUE (hole_group_id, position)
) STRICT;
INSERT INTO outline_point_with_id SELECT rowid, hole_group_id, position, x_mm, y_mm FROM outline_point;
DROP TABLE outline_point;
ALTER TABLE outline_point_with_id RENAME TO outline_point;

-- The others have an id: what is stored of them stays as it is, only their declaration changes.
PRAGMA writable_schema = ON;
UPDATE sqlite_master SET sql = replace(sql, 'INTEGER PRIMARY KEY', 'INTEGER PRIMARY KEY AUTOINCREMENT')
WHERE type = 'table' AND name IN (
    'study', 'sample', 'claim', 'evidence', 'typed_number', 'intended_use', 'hole_group', 'reading', 'offer',
    'quantity_state', 'copied_fact', 'scenario', 'duty_cycle', 'change', 'kept_engine', 'template', 'date_code_rule');
PRAGMA writable_schema = RESET;

-- Numbering goes on above every id that was ever given, as far as the journal knows.
DELETE FROM sqlite_sequence;
INSERT INTO sqlite_sequence (name, seq)
          SELECT 'study', COALESCE(MAX(id), 0) FROM study
UNION ALL SELECT 'sample', COALESCE(MAX(id), 0) FROM sample
UNION ALL SELECT 'claim', COALESCE(MAX(id), 0) FROM claim
UNION ALL SELECT 'evidence', COALESCE(MAX(id), 0) FROM evidence
UNION ALL SELECT 'typed_number', COALESCE(MAX(id), 0) FROM typed_number
UNION ALL SELECT 'intended_use', COALESCE(MAX(id), 0) FROM intended_use
UNION ALL SELECT 'hole_group', COALESCE(MAX(id), 0) FROM hole_group
UNION ALL SELECT 'reading', COALESCE(MAX(id), 0) FROM reading
UNION ALL SELECT 'offer', COALESCE(MAX(id), 0) FROM offer
UNION ALL SELECT 'quantity_state', COALESCE(MAX(id), 0) FROM quantity_state
UNION ALL SELECT 'copied_fact', COALESCE(MAX(id), 0) FROM copied_fact
UNION ALL SELECT 'scenario', COALESCE(MAX(id), 0) FROM scenario
UNION ALL SELECT 'duty_cycle', COALESCE(MAX(id), 0) FROM duty_cycle
UNION ALL SELECT 'change', COALESCE(MAX(id), 0) FROM change
UNION ALL SELECT 'kept_engine', COALESCE(MAX(id), 0) FROM kept_engine
UNION ALL SELECT 'template', COALESCE(MAX(id), 0) FROM template
UNION ALL SELECT 'date_code_rule', COALESCE(MAX(id), 0) FROM date_code_rule
UNION ALL SELECT 'observation', COALESCE(MAX(id), 0) FROM observation
UNION ALL SELECT 'viscosity_point', COALESCE(MAX(id), 0) FROM viscosity_point
UNION ALL SELECT 'stated_loss', COALESCE(MAX(id), 0) FROM stated_loss
UNION ALL SELECT 'outline_point', COALESCE(MAX(id), 0) FROM outline_point;
UPDATE sqlite_sequence SET seq = MAX(seq, (SELECT COALESCE(MAX(row_id), 0) FROM change_row WHERE table_name = sqlite_sequence.name));
