-- What a person notes of a version after it was made; the version itself stays as it is.
ALTER TABLE result ADD COLUMN note VARCHAR(1000) NOT NULL DEFAULT '';
