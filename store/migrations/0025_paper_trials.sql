-- Paper trials: one chart on many stocks of one device, printed in one go. Each stock has its condition and its print.
CREATE TABLE paper_trial (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(120) NOT NULL,
  device_id BIGINT UNSIGNED NOT NULL,
  mode VARCHAR(60) NOT NULL,
  patches INT UNSIGNED NOT NULL,
  author_id BIGINT UNSIGNED NOT NULL,
  made_ms BIGINT NOT NULL,
  removed_ms BIGINT NULL,
  KEY paper_trial_house (house_id, id),
  CONSTRAINT paper_trial_of_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT paper_trial_device FOREIGN KEY (device_id) REFERENCES device (id),
  CONSTRAINT paper_trial_author FOREIGN KEY (author_id) REFERENCES person (id)
) ENGINE=InnoDB;

CREATE TABLE paper_trial_print (
  house_id BIGINT UNSIGNED NOT NULL,
  trial_id BIGINT UNSIGNED NOT NULL,
  print_id BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (trial_id, print_id),
  KEY paper_trial_print_house (house_id),
  CONSTRAINT paper_trial_print_trial FOREIGN KEY (trial_id) REFERENCES paper_trial (id),
  CONSTRAINT paper_trial_print_print FOREIGN KEY (print_id) REFERENCES print (id),
  CONSTRAINT paper_trial_print_of_house FOREIGN KEY (house_id) REFERENCES house (id)
) ENGINE=InnoDB;
