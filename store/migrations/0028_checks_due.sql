-- After how many days a check is due again, where that was said when it was printed.
ALTER TABLE result ADD COLUMN valid_days SMALLINT UNSIGNED NULL AFTER made_ms;
