-- Results that stay: computed once, and read as long as nothing they rest on is another.

CREATE TABLE stored_result (
    sample_id  INTEGER NOT NULL REFERENCES sample (id) ON DELETE CASCADE,
    kind       TEXT NOT NULL,           -- summary, behaviour
    basis      TEXT NOT NULL,           -- revision of the sample, of oil and engine, version of the method
    document   TEXT NOT NULL,
    PRIMARY KEY (sample_id, kind)
) STRICT, WITHOUT ROWID;
