-- The paper that an aim set was moved to, and what it was moved from (JSON); null where it was not.
ALTER TABLE aim_set ADD COLUMN moved TEXT NULL;
