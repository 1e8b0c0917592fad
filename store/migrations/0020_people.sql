-- Who may come in: a passphrase as argon2id tells it apart, failures that lock, and when somebody left the house.
ALTER TABLE person
  ADD COLUMN passphrase VARCHAR(200) NULL,
  ADD COLUMN failures INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN locked_ms BIGINT NOT NULL DEFAULT 0,
  ADD COLUMN away_ms BIGINT NULL,
  ADD UNIQUE KEY person_name (house_id, name);

-- Somebody who is signed in somewhere: the cookie's digest, never the cookie.
CREATE TABLE person_session (
  digest BINARY(32) NOT NULL PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NOT NULL,
  agent VARCHAR(160) NOT NULL,
  made_ms BIGINT NOT NULL,
  seen_ms BIGINT NOT NULL,
  ends_ms BIGINT NOT NULL,
  KEY session_of_person (house_id, person_id),
  CONSTRAINT person_session_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT person_session_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- A key of a front end, a feed or a command line: acts in the name of whoever made it, and may do no more than its role.
CREATE TABLE machine_key (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  role VARCHAR(40) NOT NULL,
  digest BINARY(32) NOT NULL,
  made_ms BIGINT NOT NULL,
  ends_ms BIGINT NOT NULL,
  used_ms BIGINT NULL,
  ended_ms BIGINT NULL,
  UNIQUE KEY machine_key_digest (digest),
  CONSTRAINT machine_key_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT machine_key_person FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- The record of acts: who changed what, when and from where. It is written and read, and never changed.
CREATE TABLE act (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NOT NULL,
  machine_key_id BIGINT UNSIGNED NULL,
  at_ms BIGINT NOT NULL,
  origin VARCHAR(60) NOT NULL,
  what VARCHAR(160) NOT NULL,
  object VARCHAR(160) NOT NULL,
  detail TEXT NOT NULL,
  KEY act_house (house_id, id),
  CONSTRAINT act_of_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT act_by_person FOREIGN KEY (person_id) REFERENCES person (id),
  CONSTRAINT act_by_key FOREIGN KEY (machine_key_id) REFERENCES machine_key (id)
) ENGINE=InnoDB;

CREATE TRIGGER act_is_not_changed BEFORE UPDATE ON act FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the record of acts is not changed';

CREATE TRIGGER act_is_not_removed BEFORE DELETE ON act FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'the record of acts is not changed';
