-- Whether lengths and screens are told in mm and lines/cm, or in inches and lines per inch.
ALTER TABLE house ADD COLUMN units VARCHAR(8) NOT NULL DEFAULT 'metric' AFTER time_zone;
