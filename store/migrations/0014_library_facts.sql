-- Patches of charts for coarse screens are larger than usual.
ALTER TABLE chart ADD COLUMN patch_size VARCHAR(8) NOT NULL DEFAULT 'usual' AFTER reader;

-- What the house knows of a device (pages of its own, printed width, ink zones, screen, formats of its front end) and of
-- a stock (weight, side, backing, brightener), as JSON: nothing is searched by it.
ALTER TABLE device ADD COLUMN facts TEXT NULL;
ALTER TABLE stock ADD COLUMN facts TEXT NULL;

-- Ink sets by their names, which devices and conditions use.
CREATE TABLE ink_set (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  kind VARCHAR(12) NOT NULL DEFAULT '',
  rest_minutes INT UNSIGNED NULL,
  note VARCHAR(400) NOT NULL DEFAULT '',
  away_ms BIGINT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  UNIQUE KEY ink_set_name (house_id, name),
  CONSTRAINT ink_set_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT ink_set_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;
INSERT IGNORE INTO ink_set (house_id, name, author_id, made_ms)
  SELECT house_id, ink_set, author_id, made_ms FROM printing_condition WHERE ink_set <> '' ORDER BY id;
INSERT IGNORE INTO ink_set (house_id, name, author_id, made_ms)
  SELECT house_id, ink_set, author_id, made_ms FROM device WHERE ink_set <> '' ORDER BY id;
