-- Profiles that were dropped on the shelf and kept: a maker's, a paper seller's, a service's. The same file is kept once.
CREATE TABLE kept_profile (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  digest BINARY(32) NOT NULL,
  name VARCHAR(160) NOT NULL,
  space VARCHAR(4) NOT NULL,
  origin VARCHAR(20) NOT NULL,
  note VARCHAR(2000) NOT NULL,
  content LONGBLOB NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  away_ms BIGINT NULL,
  UNIQUE KEY kept_profile_file (house_id, digest),
  CONSTRAINT kept_profile_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT kept_profile_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;
