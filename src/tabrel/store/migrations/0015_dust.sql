-- A scenario may load the media by a mass of dust.

ALTER TABLE scenario ADD COLUMN loading_g REAL;  -- g of test dust
