CREATE TABLE person (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  role VARCHAR(40) NOT NULL,
  made_ms BIGINT NOT NULL
) ENGINE=InnoDB;

INSERT INTO person (name, role, made_ms) VALUES ('Ines Marlow', 'specialist', 0);

CREATE TABLE setting (
  name VARCHAR(60) NOT NULL PRIMARY KEY,
  value VARCHAR(400) NOT NULL
) ENGINE=InnoDB;

CREATE TABLE device (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  code CHAR(3) NOT NULL,
  kind VARCHAR(120) NOT NULL,
  space VARCHAR(12) NOT NULL,
  driver VARCHAR(40) NOT NULL,
  prints INT UNSIGNED NOT NULL DEFAULT 0,
  made_ms BIGINT NOT NULL,
  UNIQUE KEY device_name (name),
  UNIQUE KEY device_code (code)
) ENGINE=InnoDB;

CREATE TABLE stock (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  finish VARCHAR(12) NOT NULL,
  rest_minutes INT UNSIGNED NOT NULL,
  driver VARCHAR(40) NOT NULL,
  made_ms BIGINT NOT NULL,
  UNIQUE KEY stock_name (name)
) ENGINE=InnoDB;

CREATE TABLE instrument (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  driver VARCHAR(40) NOT NULL,
  tile_ms BIGINT NULL,
  UNIQUE KEY instrument_name (name)
) ENGINE=InnoDB;

CREATE TABLE printing_condition (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  device_id BIGINT UNSIGNED NOT NULL,
  stock_id BIGINT UNSIGNED NOT NULL,
  ink_set VARCHAR(80) NOT NULL,
  mode VARCHAR(60) NOT NULL,
  copied_from BIGINT UNSIGNED NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  CONSTRAINT condition_device FOREIGN KEY (device_id) REFERENCES device (id),
  CONSTRAINT condition_stock FOREIGN KEY (stock_id) REFERENCES stock (id),
  CONSTRAINT condition_copied FOREIGN KEY (copied_from) REFERENCES printing_condition (id),
  CONSTRAINT condition_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE settings_point (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  condition_id BIGINT UNSIGNED NOT NULL,
  position INT UNSIGNED NOT NULL,
  label VARCHAR(120) NOT NULL,
  value VARCHAR(200) NOT NULL,
  tick_at_print TINYINT(1) NOT NULL DEFAULT 0,
  UNIQUE KEY point_position (condition_id, position),
  CONSTRAINT point_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id)
) ENGINE=InnoDB;

CREATE TABLE chart (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  condition_id BIGINT UNSIGNED NOT NULL,
  purpose VARCHAR(20) NOT NULL,
  title VARCHAR(120) NOT NULL,
  patches INT UNSIGNED NOT NULL,
  paper VARCHAR(10) NOT NULL,
  seed INT UNSIGNED NOT NULL,
  reference LONGTEXT NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  KEY chart_condition (condition_id, id),
  CONSTRAINT chart_of FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT chart_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE file (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  sha256 BINARY(32) NOT NULL,
  bytes INT UNSIGNED NOT NULL,
  media_type VARCHAR(80) NOT NULL,
  name VARCHAR(200) NOT NULL,
  content LONGBLOB NOT NULL,
  made_ms BIGINT NOT NULL
) ENGINE=InnoDB;

CREATE TABLE result (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  condition_id BIGINT UNSIGNED NOT NULL,
  link VARCHAR(20) NOT NULL,
  version INT UNSIGNED NOT NULL,
  verdict VARCHAR(20) NULL,
  summary LONGTEXT NOT NULL,
  detail LONGTEXT NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  UNIQUE KEY result_version (condition_id, link, version),
  CONSTRAINT result_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT result_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE result_file (
  result_id BIGINT UNSIGNED NOT NULL,
  role VARCHAR(20) NOT NULL,
  file_id BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (result_id, role),
  CONSTRAINT result_file_result FOREIGN KEY (result_id) REFERENCES result (id),
  CONSTRAINT result_file_file FOREIGN KEY (file_id) REFERENCES file (id)
) ENGINE=InnoDB;

CREATE TABLE condition_head (
  condition_id BIGINT UNSIGNED NOT NULL,
  link VARCHAR(20) NOT NULL,
  result_id BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (condition_id, link),
  CONSTRAINT head_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT head_result FOREIGN KEY (result_id) REFERENCES result (id)
) ENGINE=InnoDB;

CREATE TABLE print (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  condition_id BIGINT UNSIGNED NOT NULL,
  chart_id BIGINT UNSIGNED NOT NULL,
  code VARCHAR(24) NOT NULL,
  profile_result_id BIGINT UNSIGNED NULL,
  device_values LONGBLOB NOT NULL,
  ticks TEXT NOT NULL,
  printed_ms BIGINT NOT NULL,
  rest_until_ms BIGINT NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  UNIQUE KEY print_code (code),
  KEY print_condition (condition_id, id),
  CONSTRAINT print_of FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT print_chart FOREIGN KEY (chart_id) REFERENCES chart (id),
  CONSTRAINT print_profile FOREIGN KEY (profile_result_id) REFERENCES result (id),
  CONSTRAINT print_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE sheet (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  print_id BIGINT UNSIGNED NOT NULL,
  page INT UNSIGNED NOT NULL,
  code VARCHAR(30) NOT NULL,
  strips INT UNSIGNED NOT NULL,
  strips_read INT UNSIGNED NOT NULL DEFAULT 0,
  marked TEXT NOT NULL,
  thumbnail TEXT NOT NULL,
  print_state TEXT NOT NULL,
  on_rack TINYINT(1) NOT NULL DEFAULT 1,
  UNIQUE KEY sheet_code (code),
  UNIQUE KEY sheet_page (print_id, page),
  KEY sheet_rack (on_rack, id),
  CONSTRAINT sheet_print FOREIGN KEY (print_id) REFERENCES print (id)
) ENGINE=InnoDB;

CREATE TABLE reading (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  print_id BIGINT UNSIGNED NOT NULL,
  instrument_id BIGINT UNSIGNED NULL,
  source VARCHAR(12) NOT NULL,
  mode CHAR(2) NOT NULL,
  started_ms BIGINT NOT NULL,
  finished_ms BIGINT NULL,
  early TINYINT(1) NOT NULL DEFAULT 0,
  withdrawn_ms BIGINT NULL,
  faults TEXT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  KEY reading_print (print_id, id),
  CONSTRAINT reading_of FOREIGN KEY (print_id) REFERENCES print (id),
  CONSTRAINT reading_instrument FOREIGN KEY (instrument_id) REFERENCES instrument (id),
  CONSTRAINT reading_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE strip_reading (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  reading_id BIGINT UNSIGNED NOT NULL,
  page INT UNSIGNED NOT NULL,
  strip INT UNSIGNED NOT NULL,
  attempt VARCHAR(60) NOT NULL,
  reversed TINYINT(1) NOT NULL DEFAULT 0,
  kind VARCHAR(10) NOT NULL,
  start_nm DOUBLE NOT NULL,
  step_nm DOUBLE NOT NULL,
  bands INT UNSIGNED NOT NULL,
  patch_values LONGBLOB NOT NULL,
  read_ms BIGINT NOT NULL,
  UNIQUE KEY strip_attempt (reading_id, page, strip, attempt),
  CONSTRAINT strip_of FOREIGN KEY (reading_id) REFERENCES reading (id)
) ENGINE=InnoDB;

CREATE TABLE result_source (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  result_id BIGINT UNSIGNED NOT NULL,
  reading_id BIGINT UNSIGNED NULL,
  source_result_id BIGINT UNSIGNED NULL,
  KEY source_result (result_id),
  KEY source_reading (reading_id),
  CONSTRAINT source_of FOREIGN KEY (result_id) REFERENCES result (id),
  CONSTRAINT source_is_reading FOREIGN KEY (reading_id) REFERENCES reading (id),
  CONSTRAINT source_is_result FOREIGN KEY (source_result_id) REFERENCES result (id)
) ENGINE=InnoDB;

CREATE TABLE job (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kind VARCHAR(40) NOT NULL,
  condition_id BIGINT UNSIGNED NULL,
  input LONGTEXT NOT NULL,
  state VARCHAR(12) NOT NULL,
  available_ms BIGINT NOT NULL,
  attempts INT UNSIGNED NOT NULL DEFAULT 0,
  lease_token VARCHAR(40) NULL,
  lease_until_ms BIGINT NULL,
  cancel_asked TINYINT(1) NOT NULL DEFAULT 0,
  fraction DOUBLE NOT NULL DEFAULT 0,
  words VARCHAR(200) NOT NULL DEFAULT '',
  result_id BIGINT UNSIGNED NULL,
  error VARCHAR(1000) NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  finished_ms BIGINT NULL,
  KEY job_queue (state, available_ms, id),
  KEY job_recent (finished_ms),
  CONSTRAINT job_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT job_result FOREIGN KEY (result_id) REFERENCES result (id),
  CONSTRAINT job_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE idempotency_key (
  request_key VARCHAR(80) NOT NULL PRIMARY KEY,
  status INT UNSIGNED NOT NULL,
  body LONGTEXT NOT NULL,
  made_ms BIGINT NOT NULL
) ENGINE=InnoDB;
