-- Devices and stocks of the library have notes, and are put away and taken out; conditions have a name that tells them
-- from others of the same device, stock and mode, and are archived.
ALTER TABLE device ADD COLUMN note VARCHAR(400) NOT NULL DEFAULT '', ADD COLUMN away_ms BIGINT NULL;
ALTER TABLE stock ADD COLUMN box_label VARCHAR(200) NOT NULL DEFAULT '' AFTER finish,
  ADD COLUMN note VARCHAR(400) NOT NULL DEFAULT '', ADD COLUMN away_ms BIGINT NULL;
ALTER TABLE printing_condition ADD COLUMN label VARCHAR(80) NOT NULL DEFAULT '' AFTER mode,
  ADD COLUMN archived_ms BIGINT NULL;
