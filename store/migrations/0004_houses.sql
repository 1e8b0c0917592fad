CREATE TABLE house (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  time_zone VARCHAR(60) NOT NULL,
  sample TINYINT(1) NOT NULL DEFAULT 0,
  made_ms BIGINT NOT NULL
) ENGINE=InnoDB;

INSERT INTO house (id, name, time_zone, made_ms) VALUES (1, 'Saltmarsh Works', 'Europe/London', 0);

ALTER TABLE person ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD CONSTRAINT person_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE person ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE setting ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 FIRST,
  DROP PRIMARY KEY, ADD PRIMARY KEY (house_id, name),
  ADD CONSTRAINT setting_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE setting ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE device ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN author_id BIGINT UNSIGNED NOT NULL DEFAULT 1,
  ADD COLUMN process TEXT NULL AFTER space,
  DROP KEY device_name, DROP KEY device_code,
  ADD UNIQUE KEY device_name (house_id, name), ADD UNIQUE KEY device_code (house_id, code),
  ADD CONSTRAINT device_house FOREIGN KEY (house_id) REFERENCES house (id),
  ADD CONSTRAINT device_author FOREIGN KEY (author_id) REFERENCES person (id);
UPDATE device SET process = CASE space
  WHEN 'rgb' THEN '{"name":"RGB","scale":255,"channels":[{"name":"R","kind":"light","bare":1},{"name":"G","kind":"light","bare":1},{"name":"B","kind":"light","bare":1}]}'
  WHEN 'cmyk' THEN '{"name":"CMYK","scale":100,"channels":[{"name":"C","kind":"chromatic","bare":0},{"name":"M","kind":"chromatic","bare":0},{"name":"Y","kind":"chromatic","bare":0},{"name":"K","kind":"black","bare":0}]}'
  ELSE '{"name":"CMYKOG","scale":100,"channels":[{"name":"C","kind":"chromatic","bare":0},{"name":"M","kind":"chromatic","bare":0},{"name":"Y","kind":"chromatic","bare":0},{"name":"K","kind":"black","bare":0},{"name":"O","kind":"chromatic","bare":0},{"name":"G","kind":"chromatic","bare":0}]}' END;
ALTER TABLE device MODIFY COLUMN process TEXT NOT NULL, DROP COLUMN space,
  ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN author_id DROP DEFAULT;

ALTER TABLE stock ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN author_id BIGINT UNSIGNED NOT NULL DEFAULT 1,
  DROP KEY stock_name, ADD UNIQUE KEY stock_name (house_id, name),
  ADD CONSTRAINT stock_house FOREIGN KEY (house_id) REFERENCES house (id),
  ADD CONSTRAINT stock_author FOREIGN KEY (author_id) REFERENCES person (id);
ALTER TABLE stock ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN author_id DROP DEFAULT;

ALTER TABLE instrument ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN author_id BIGINT UNSIGNED NOT NULL DEFAULT 1,
  DROP KEY instrument_name, ADD UNIQUE KEY instrument_name (house_id, name),
  ADD CONSTRAINT instrument_house FOREIGN KEY (house_id) REFERENCES house (id),
  ADD CONSTRAINT instrument_author FOREIGN KEY (author_id) REFERENCES person (id);
ALTER TABLE instrument ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN author_id DROP DEFAULT;

ALTER TABLE printing_condition ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD KEY condition_sameness (house_id, device_id, stock_id, mode, ink_set),
  ADD CONSTRAINT condition_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE printing_condition ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE settings_point ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD CONSTRAINT point_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE settings_point ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE chart ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN kind VARCHAR(20) NULL AFTER purpose,
  ADD COLUMN process VARCHAR(80) NOT NULL DEFAULT 'CMYK' AFTER kind,
  ADD CONSTRAINT chart_house FOREIGN KEY (house_id) REFERENCES house (id);
UPDATE chart SET kind = CASE
  WHEN purpose = 'wedge' AND title = 'Watch wedge' THEN 'watch'
  WHEN purpose = 'wedge' AND title = 'Near-neutral wedge' THEN 'near-neutral'
  WHEN purpose = 'wedge' AND title = 'Own wedge' THEN 'own'
  WHEN purpose = 'wedge' THEN 'proof'
  WHEN purpose = 'profile' AND title LIKE 'second,%' THEN 'second'
  WHEN purpose = 'profile' AND title LIKE 'refinement,%' THEN 'refinement'
  WHEN purpose = 'profile' THEN 'first' END;
UPDATE chart c JOIN printing_condition pc ON pc.id = c.condition_id JOIN device d ON d.id = pc.device_id
  SET c.process = CASE WHEN c.purpose = 'wedge' THEN 'CMYK' ELSE JSON_VALUE(d.process, '$.name') END;
ALTER TABLE chart ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN process DROP DEFAULT;

ALTER TABLE file ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD CONSTRAINT file_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE file ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE result ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN shape VARCHAR(20) NOT NULL DEFAULT '' AFTER link,
  ADD COLUMN shape_version INT UNSIGNED NOT NULL DEFAULT 1 AFTER shape,
  ADD CONSTRAINT result_house FOREIGN KEY (house_id) REFERENCES house (id);
UPDATE result SET shape = CASE
  WHEN link = 'conformity' AND summary LIKE '{"kind":"aims"%' THEN 'aim-check'
  WHEN link = 'conformity' THEN 'short-check'
  ELSE link END;
ALTER TABLE result ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN shape DROP DEFAULT,
  ALTER COLUMN shape_version DROP DEFAULT,
  ADD KEY result_shape (house_id, shape, id);

ALTER TABLE result_file ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 FIRST,
  ADD CONSTRAINT result_file_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE result_file ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE result_source ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD CONSTRAINT source_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE result_source ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE condition_head ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 FIRST,
  ADD COLUMN author_id BIGINT UNSIGNED NOT NULL DEFAULT 1,
  ADD CONSTRAINT head_house FOREIGN KEY (house_id) REFERENCES house (id),
  ADD CONSTRAINT head_author FOREIGN KEY (author_id) REFERENCES person (id);
UPDATE condition_head h JOIN result r ON r.id = h.result_id SET h.author_id = r.author_id;
ALTER TABLE condition_head ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN author_id DROP DEFAULT;

ALTER TABLE print ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  DROP KEY print_code, ADD UNIQUE KEY print_code (house_id, code),
  ADD CONSTRAINT print_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE print ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE sheet ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  DROP KEY sheet_code, ADD UNIQUE KEY sheet_code (house_id, code),
  DROP KEY sheet_rack, ADD KEY sheet_rack (house_id, on_rack, id),
  ADD CONSTRAINT sheet_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE sheet ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE reading ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN withdrawn_by BIGINT UNSIGNED NULL AFTER withdrawn_ms,
  ADD CONSTRAINT reading_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE reading ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE strip_reading ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN author_id BIGINT UNSIGNED NOT NULL DEFAULT 1,
  ADD CONSTRAINT strip_house FOREIGN KEY (house_id) REFERENCES house (id),
  ADD CONSTRAINT strip_author FOREIGN KEY (author_id) REFERENCES person (id);
UPDATE strip_reading s JOIN reading r ON r.id = s.reading_id SET s.author_id = r.author_id;
ALTER TABLE strip_reading ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN author_id DROP DEFAULT;

ALTER TABLE result_reached ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 FIRST,
  ADD CONSTRAINT reached_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE result_reached ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE aim_set ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  DROP KEY aim_set_version, ADD UNIQUE KEY aim_set_version (house_id, family, version),
  ADD CONSTRAINT aim_set_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE aim_set ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE tolerance_set ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  DROP KEY tolerance_set_version, ADD UNIQUE KEY tolerance_set_version (house_id, family, version),
  ADD CONSTRAINT tolerance_set_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE tolerance_set ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE report_link ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER code,
  ADD CONSTRAINT link_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE report_link ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE watch_check ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD CONSTRAINT watch_check_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE watch_check ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE watch_state ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 FIRST,
  ADD KEY watch_state_of (house_id),
  ADD CONSTRAINT watch_state_house FOREIGN KEY (house_id) REFERENCES house (id);
ALTER TABLE watch_state ALTER COLUMN house_id DROP DEFAULT;

ALTER TABLE job ADD COLUMN house_id BIGINT UNSIGNED NOT NULL DEFAULT 1 AFTER id,
  ADD COLUMN lane VARCHAR(8) NOT NULL DEFAULT 'long' AFTER kind,
  ADD COLUMN reading_id BIGINT UNSIGNED NULL AFTER condition_id,
  DROP KEY job_queue, ADD KEY job_queue (lane, state, available_ms, id),
  ADD KEY job_running (state, lease_until_ms), ADD KEY job_reading (reading_id, state),
  ADD CONSTRAINT job_house FOREIGN KEY (house_id) REFERENCES house (id),
  ADD CONSTRAINT job_of_reading FOREIGN KEY (reading_id) REFERENCES reading (id);
ALTER TABLE job ALTER COLUMN house_id DROP DEFAULT, ALTER COLUMN lane DROP DEFAULT;

DROP TABLE idempotency_key;

CREATE TABLE idempotency_key (
  house_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NOT NULL,
  route VARCHAR(160) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  request_key VARCHAR(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
  body LONGTEXT NULL,
  made_ms BIGINT NOT NULL,
  PRIMARY KEY (house_id, person_id, route, request_key),
  KEY idempotency_age (made_ms),
  CONSTRAINT idempotency_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT idempotency_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE runner (
  id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
  started_ms BIGINT NOT NULL,
  beat_ms BIGINT NOT NULL
) ENGINE=InnoDB;
