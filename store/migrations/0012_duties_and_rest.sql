-- A device's own calibration as a duty: what is done, every how many days, and when it was done last.
ALTER TABLE device
  ADD COLUMN duty VARCHAR(120) NOT NULL DEFAULT '',
  ADD COLUMN duty_days INT UNSIGNED NULL,
  ADD COLUMN duty_done_ms BIGINT NULL;

-- How long a print rests in the house's experience; null where it is the stock's own time.
ALTER TABLE printing_condition ADD COLUMN rest_minutes INT UNSIGNED NULL;

-- A condition for which nothing was printed or made yet can be deleted; the row stays for as long as that can be undone.
ALTER TABLE printing_condition ADD COLUMN deleted_ms BIGINT NULL;
