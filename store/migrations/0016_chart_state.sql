-- Where the charts of a watch stood after a check (64-bit numbers, little-endian): the next check is charted from there.
ALTER TABLE watch_check ADD COLUMN chart_state BLOB NULL;
