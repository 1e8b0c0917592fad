-- Lights that prints of the house hang in, as they were measured. The spectrum of a light never changes: another measurement
-- is another light. Which share of ultraviolet acts in it (that of M1 is 1) a brightener study tells, the latest one.
CREATE TABLE viewing_light (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  note VARCHAR(400) NOT NULL DEFAULT '',
  file_name VARCHAR(160) NOT NULL,
  start_nm DOUBLE NOT NULL,
  step_nm DOUBLE NOT NULL,
  power LONGTEXT NOT NULL,
  uv_share DOUBLE NULL,
  uv_low DOUBLE NULL,
  uv_high DOUBLE NULL,
  uv_ms BIGINT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  away_ms BIGINT NULL,
  KEY viewing_light_house (house_id, id),
  CONSTRAINT viewing_light_of_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT viewing_light_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;
