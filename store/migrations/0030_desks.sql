-- A desk stays signed in as a desk; whoever works at it takes it over by a short code of their own.
ALTER TABLE person_session
  ADD COLUMN desk VARCHAR(60) NULL,
  ADD COLUMN taken_by BIGINT UNSIGNED NULL,
  ADD COLUMN taken_ms BIGINT NULL,
  ADD CONSTRAINT person_session_taken FOREIGN KEY (taken_by) REFERENCES person (id);

ALTER TABLE person
  ADD COLUMN desk_code VARCHAR(200) NULL,
  ADD COLUMN code_failures INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN code_locked_ms BIGINT NOT NULL DEFAULT 0;
