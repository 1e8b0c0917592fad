-- What each ink of a set costs a litre, and how much of it lies on a square metre in full: JSON, empty where nobody has told.
ALTER TABLE ink_set ADD COLUMN costs VARCHAR(1000) NOT NULL DEFAULT '' AFTER rest_minutes;
