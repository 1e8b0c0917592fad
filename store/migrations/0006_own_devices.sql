-- Devices of the house's own have no driver: their inks and modes stand with them.
ALTER TABLE device ADD COLUMN ink_set VARCHAR(80) NOT NULL DEFAULT '' AFTER driver,
  ADD COLUMN modes TEXT NULL AFTER ink_set;
