-- The highest number given to a report of each year: it stays where an older copy takes the database's place.

CREATE TABLE report_number (
    year     INTEGER PRIMARY KEY,
    highest  INTEGER NOT NULL
) STRICT;

INSERT INTO report_number
SELECT CAST(substr(number, 1, 4) AS INTEGER) AS year, MAX(CAST(substr(number, 6) AS INTEGER)) FROM issued_report GROUP BY year;

CREATE TRIGGER report_number_only_rises BEFORE UPDATE ON report_number WHEN NEW.highest < OLD.highest
BEGIN
    SELECT RAISE(ABORT, 'a number that was given is not given again');
END;

CREATE TRIGGER report_number_is_kept BEFORE DELETE ON report_number
BEGIN
    SELECT RAISE(ABORT, 'a number that was given is kept');
END;
