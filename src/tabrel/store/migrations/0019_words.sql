-- One word for one fact: a reading is set aside, a questioned one confirmed. What the journal holds follows.

ALTER TABLE reading RENAME COLUMN struck_out_at TO set_aside_at;
ALTER TABLE reading RENAME COLUMN struck_out_reason TO set_aside_reason;
ALTER TABLE reading RENAME COLUMN insisted TO confirmed;

UPDATE change_row SET before = json_remove(
    json_set(before, '$.set_aside_at', json_extract(before, '$.struck_out_at'),
             '$.set_aside_reason', json_extract(before, '$.struck_out_reason'),
             '$.confirmed', json_extract(before, '$.insisted')),
    '$.struck_out_at', '$.struck_out_reason', '$.insisted')
WHERE table_name = 'reading' AND before IS NOT NULL;

UPDATE change_row SET after = json_remove(
    json_set(after, '$.set_aside_at', json_extract(after, '$.struck_out_at'),
             '$.set_aside_reason', json_extract(after, '$.struck_out_reason'),
             '$.confirmed', json_extract(after, '$.insisted')),
    '$.struck_out_at', '$.struck_out_reason', '$.insisted')
WHERE table_name = 'reading' AND after IS NOT NULL;
