CREATE TABLE aim_set (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  family VARCHAR(60) NOT NULL,
  version INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  origin VARCHAR(600) NOT NULL,
  source VARCHAR(12) NOT NULL,
  conditions TEXT NOT NULL,
  patches INT UNSIGNED NOT NULL,
  reference LONGTEXT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  removed_ms BIGINT NULL,
  UNIQUE KEY aim_set_version (family, version),
  CONSTRAINT aim_set_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE tolerance_set (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  family VARCHAR(60) NOT NULL,
  version INT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  source VARCHAR(300) NOT NULL,
  shipped TINYINT(1) NOT NULL,
  definition TEXT NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  removed_ms BIGINT NULL,
  UNIQUE KEY tolerance_set_version (family, version),
  CONSTRAINT tolerance_set_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

ALTER TABLE print ADD COLUMN judged_by TEXT NULL;

CREATE TABLE report_link (
  code CHAR(32) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
  result_id BIGINT UNSIGNED NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  ended_ms BIGINT NULL,
  KEY link_result (result_id),
  CONSTRAINT link_of FOREIGN KEY (result_id) REFERENCES result (id),
  CONSTRAINT link_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE watch_check (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  condition_id BIGINT UNSIGNED NOT NULL,
  watch_id BIGINT UNSIGNED NOT NULL,
  reading_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  mean_delta_e DOUBLE NOT NULL,
  largest_delta_e DOUBLE NOT NULL,
  verdict VARCHAR(20) NOT NULL,
  moved TINYINT(1) NOT NULL,
  cause VARCHAR(400) NULL,
  figures BLOB NOT NULL,
  UNIQUE KEY watch_check_reading (reading_id, watch_id),
  KEY watch_check_order (watch_id, made_ms, id),
  CONSTRAINT watch_check_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT watch_check_watch FOREIGN KEY (watch_id) REFERENCES result (id),
  CONSTRAINT watch_check_of FOREIGN KEY (reading_id) REFERENCES reading (id)
) ENGINE=InnoDB;

CREATE TABLE watch_state (
  condition_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
  watch_id BIGINT UNSIGNED NOT NULL,
  due_ms BIGINT NOT NULL,
  expires_ms BIGINT NOT NULL,
  last_ms BIGINT NULL,
  verdict VARCHAR(20) NOT NULL,
  moved TINYINT(1) NOT NULL,
  cause VARCHAR(400) NULL,
  spark TEXT NOT NULL,
  CONSTRAINT watch_state_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT watch_state_watch FOREIGN KEY (watch_id) REFERENCES result (id)
) ENGINE=InnoDB;
