-- Pictures of driver dialogs, kept with the condition whose settings they show, and the house's logo (no condition).
CREATE TABLE picture (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  condition_id BIGINT UNSIGNED NULL,
  name VARCHAR(120) NOT NULL,
  width INT UNSIGNED NOT NULL,
  height INT UNSIGNED NOT NULL,
  png MEDIUMBLOB NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  removed_ms BIGINT NULL,
  KEY picture_of_condition (house_id, condition_id, id),
  CONSTRAINT picture_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT picture_condition FOREIGN KEY (condition_id) REFERENCES printing_condition (id),
  CONSTRAINT picture_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- Points that the settings record of a new condition of a device begins with (JSON); null for those of the house.
ALTER TABLE device ADD COLUMN settings_template TEXT NULL;
