-- Rows that a transaction keeps others from, written down where several nodes hold the database.
CREATE TABLE held (
  what VARCHAR(20) NOT NULL,
  row_id BIGINT UNSIGNED NOT NULL,
  times BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (what, row_id)
) ENGINE=InnoDB;
