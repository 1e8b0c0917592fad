-- What a file told of how it was measured: JSON of illuminant, observer, filter, backing, geometry, instrument.
ALTER TABLE reading ADD COLUMN told TEXT NULL AFTER mode;
