-- The plan of a study's report, and reports as they were issued: their bytes and the study document they were made from.

CREATE TABLE report_plan (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    study_id  INTEGER NOT NULL UNIQUE REFERENCES study (id) ON DELETE CASCADE,
    document  TEXT NOT NULL CHECK (json_valid(document))
) STRICT;

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
