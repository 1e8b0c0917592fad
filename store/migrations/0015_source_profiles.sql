-- Profiles that jobs of inks carry: what their values are meant by. The same file is kept once.
CREATE TABLE source_profile (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  digest BINARY(32) NOT NULL,
  name VARCHAR(160) NOT NULL,
  content MEDIUMBLOB NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  UNIQUE KEY source_profile_file (house_id, digest),
  CONSTRAINT source_profile_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT source_profile_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;
