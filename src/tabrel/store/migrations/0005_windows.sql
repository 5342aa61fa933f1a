-- Which window made a change: undo takes back only one's own, unless it is said whose it is.

ALTER TABLE change ADD COLUMN made_in TEXT;  -- id of the window; NULL: not said
