-- An instrument is known by its serial number; what it can do is as its bridge told it last.
ALTER TABLE instrument CHANGE COLUMN driver serial VARCHAR(60) NOT NULL,
  ADD COLUMN kind VARCHAR(10) NOT NULL DEFAULT 'strip',
  ADD COLUMN modes TEXT NULL,
  ADD COLUMN tile_life_ms BIGINT NOT NULL DEFAULT 7200000,
  ADD COLUMN aperture_mm DOUBLE NULL,
  ADD COLUMN filter VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN backing VARCHAR(40) NOT NULL DEFAULT '',
  ADD COLUMN simulated TINYINT NOT NULL DEFAULT 0,
  ADD COLUMN note VARCHAR(400) NOT NULL DEFAULT '',
  ADD UNIQUE KEY instrument_serial (house_id, serial);
-- Until now there were only simulated ones.
UPDATE instrument SET simulated = 1;
