-- What an eye said of a page of colours laid beside their references, in a light. Never changes: a look more is a check more.
CREATE TABLE eyes_check (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  condition_id BIGINT UNSIGNED NOT NULL,
  -- The profile that the page was made with.
  result_id BIGINT UNSIGNED NOT NULL,
  list_id BIGINT UNSIGNED NULL,
  list_name VARCHAR(140) NOT NULL,
  light VARCHAR(40) NOT NULL,
  -- JSON: names of the colours, what was said of each, and what that points to.
  detail LONGTEXT NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  KEY eyes_check_of_condition (house_id, condition_id, id),
  CONSTRAINT eyes_check_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT eyes_check_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT eyes_check_result FOREIGN KEY (result_id) REFERENCES result (id),
  CONSTRAINT eyes_check_list FOREIGN KEY (list_id) REFERENCES colour_list (id),
  CONSTRAINT eyes_check_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;
