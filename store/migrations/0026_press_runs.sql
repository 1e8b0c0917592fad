-- Runs on a press: what is printed with which inks, the sheets that were read, the moves that were made, and the feeds
-- that deliver readings by themselves.
CREATE TABLE press_run (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  condition_id BIGINT UNSIGNED NOT NULL,
  job_number VARCHAR(40) NOT NULL,
  title VARCHAR(120) NOT NULL,
  customer VARCHAR(120) NOT NULL,
  side VARCHAR(20) NOT NULL,
  quantity INT UNSIGNED NOT NULL,
  repeat_mm INT UNSIGNED NULL,
  aim_set_id BIGINT UNSIGNED NOT NULL,
  -- Units, colour bar and aims do not change; settings and phase do, each change with its word in the record of acts.
  plan LONGTEXT NOT NULL,
  bar_digest CHAR(32) CHARACTER SET ascii NOT NULL,
  settings TEXT NOT NULL,
  phase VARCHAR(12) NOT NULL,
  production_from INT UNSIGNED NULL,
  ok_impression INT UNSIGNED NULL,
  -- Grows with each sheet, move and change: whoever looks on asks for what is newer.
  edition BIGINT UNSIGNED NOT NULL DEFAULT 1,
  from_run_id BIGINT UNSIGNED NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  -- The condition may be simulated: what the press is like, unread by all but its simulator.
  simulated TEXT NULL,
  KEY press_run_house (house_id, id),
  KEY press_run_job (house_id, job_number),
  KEY press_run_bar (bar_digest, id),
  KEY press_run_condition (condition_id, id),
  CONSTRAINT press_run_of_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT press_run_of_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT press_run_aims FOREIGN KEY (aim_set_id) REFERENCES aim_set (id),
  CONSTRAINT press_run_author FOREIGN KEY (author_id) REFERENCES person (id),
  CONSTRAINT press_run_from FOREIGN KEY (from_run_id) REFERENCES press_run (id)
) ENGINE=InnoDB;

CREATE TABLE feed (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  kind VARCHAR(10) NOT NULL,
  folder VARCHAR(400) NULL,
  run_id BIGINT UNSIGNED NULL,
  by_itself TINYINT NOT NULL,
  last_ms BIGINT NULL,
  trouble VARCHAR(400) NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  removed_ms BIGINT NULL,
  KEY feed_kind (kind, id),
  KEY feed_house (house_id, id),
  CONSTRAINT feed_of_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT feed_of_run FOREIGN KEY (run_id) REFERENCES press_run (id),
  CONSTRAINT feed_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- What was delivered, as it came: kept until a person or the run itself takes it in, and known again when it comes twice.
CREATE TABLE feed_delivery (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  feed_id BIGINT UNSIGNED NOT NULL,
  delivery_key VARCHAR(80) NOT NULL,
  digest BINARY(32) NOT NULL,
  content LONGBLOB NULL,
  state VARCHAR(10) NOT NULL,
  reason VARCHAR(400) NULL,
  run_id BIGINT UNSIGNED NULL,
  received_ms BIGINT NOT NULL,
  UNIQUE KEY feed_delivery_once (feed_id, delivery_key),
  KEY feed_delivery_state (feed_id, state, id),
  KEY feed_delivery_house (house_id),
  CONSTRAINT feed_delivery_feed FOREIGN KEY (feed_id) REFERENCES feed (id),
  CONSTRAINT feed_delivery_run FOREIGN KEY (run_id) REFERENCES press_run (id),
  CONSTRAINT feed_delivery_of_house FOREIGN KEY (house_id) REFERENCES house (id)
) ENGINE=InnoDB;

-- One sheet of a run. `measured` holds X, Y, Z and four densities of each patch, `figures` what the sheet is judged by.
CREATE TABLE press_sheet (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  run_id BIGINT UNSIGNED NOT NULL,
  impression INT UNSIGNED NOT NULL,
  phase VARCHAR(12) NOT NULL,
  measured LONGBLOB NOT NULL,
  figures LONGBLOB NOT NULL,
  grid VARCHAR(60) NULL,
  spectra LONGBLOB NULL,
  open_patches INT UNSIGNED NOT NULL,
  outside INT UNSIGNED NOT NULL,
  judged INT UNSIGNED NOT NULL,
  spread FLOAT NULL,
  read_ms BIGINT NOT NULL,
  UNIQUE KEY press_sheet_once (run_id, impression),
  KEY press_sheet_house (house_id),
  CONSTRAINT press_sheet_run FOREIGN KEY (run_id) REFERENCES press_run (id),
  CONSTRAINT press_sheet_of_house FOREIGN KEY (house_id) REFERENCES house (id)
) ENGINE=InnoDB;

CREATE TABLE press_move (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  run_id BIGINT UNSIGNED NOT NULL,
  unit TINYINT UNSIGNED NOT NULL,
  impression INT UNSIGNED NOT NULL,
  changes TEXT NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  UNIQUE KEY press_move_once (run_id, unit, impression),
  KEY press_move_house (house_id),
  CONSTRAINT press_move_run FOREIGN KEY (run_id) REFERENCES press_run (id),
  CONSTRAINT press_move_author FOREIGN KEY (author_id) REFERENCES person (id),
  CONSTRAINT press_move_of_house FOREIGN KEY (house_id) REFERENCES house (id)
) ENGINE=InnoDB;
