ALTER TABLE chart ADD COLUMN reader VARCHAR(8) NOT NULL DEFAULT 'strip';
ALTER TABLE chart ADD COLUMN copies INT UNSIGNED NOT NULL DEFAULT 1;

ALTER TABLE print ADD COLUMN curves_result_id BIGINT UNSIGNED NULL;
ALTER TABLE print ADD COLUMN evenness_result_id BIGINT UNSIGNED NULL;
ALTER TABLE print ADD CONSTRAINT print_curves FOREIGN KEY (curves_result_id) REFERENCES result (id);
ALTER TABLE print ADD CONSTRAINT print_evenness FOREIGN KEY (evenness_result_id) REFERENCES result (id);

CREATE TABLE result_reached (
  result_id BIGINT UNSIGNED NOT NULL,
  reading_id BIGINT UNSIGNED NOT NULL,
  verdict VARCHAR(20) NOT NULL,
  summary TEXT NOT NULL,
  detail LONGTEXT NOT NULL,
  made_ms BIGINT NOT NULL,
  PRIMARY KEY (result_id, reading_id),
  CONSTRAINT reached_result FOREIGN KEY (result_id) REFERENCES result (id),
  CONSTRAINT reached_reading FOREIGN KEY (reading_id) REFERENCES reading (id)
) ENGINE=InnoDB;
