-- A run is a check of its condition's watch, and its analysis can be made public.
ALTER TABLE watch_check MODIFY reading_id BIGINT UNSIGNED NULL,
  ADD COLUMN run_id BIGINT UNSIGNED NULL AFTER reading_id,
  ADD UNIQUE KEY watch_check_run (run_id, watch_id),
  ADD CONSTRAINT watch_check_of_run FOREIGN KEY (run_id) REFERENCES press_run (id);

-- The curves its plates were made with, and whether its aims were moved to an OK sheet outside of
-- them: what runs are compared by. Of runs that
-- were begun before this it is not known.
ALTER TABLE press_run ADD COLUMN curves_result_id BIGINT UNSIGNED NULL,
  ADD COLUMN curves_known TINYINT NOT NULL DEFAULT 0,
  ADD COLUMN aims_away TINYINT NOT NULL DEFAULT 0,
  ADD CONSTRAINT press_run_curves FOREIGN KEY (curves_result_id) REFERENCES result (id);

ALTER TABLE report_link MODIFY result_id BIGINT UNSIGNED NULL,
  ADD COLUMN run_id BIGINT UNSIGNED NULL AFTER result_id,
  ADD COLUMN asked VARCHAR(200) NULL AFTER run_id,
  ADD KEY link_run (run_id),
  ADD CONSTRAINT link_of_run FOREIGN KEY (run_id) REFERENCES press_run (id);

-- When its shifts begin, as clock times.
ALTER TABLE house ADD COLUMN shifts VARCHAR(60) NOT NULL DEFAULT '06:00, 14:00, 22:00';

-- The largest ΔE00 that a list allows its colours; null where it says nothing.
ALTER TABLE colour_list ADD COLUMN tolerance DOUBLE NULL;
