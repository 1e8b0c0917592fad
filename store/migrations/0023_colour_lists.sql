-- Lists of named colours, as versions of a family that never change. Colours are JSON: name, Lab (D50/2°, absolute), and the
-- spectrum that it was computed from where the list has one. Names stand beside them, one to a line, to be searched.
CREATE TABLE colour_list (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  family VARCHAR(60) NOT NULL,
  version INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  note VARCHAR(400) NOT NULL DEFAULT '',
  origin VARCHAR(300) NOT NULL,
  colours LONGTEXT NOT NULL,
  colour_names MEDIUMTEXT NOT NULL,
  colour_count INT UNSIGNED NOT NULL,
  spectra INT UNSIGNED NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  removed_ms BIGINT NULL,
  UNIQUE KEY colour_list_version (house_id, family, version),
  CONSTRAINT colour_list_of_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT colour_list_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;
