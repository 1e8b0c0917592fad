-- Passkeys: what a device proves that somebody is by. The secret stays with the device.
CREATE TABLE passkey (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  credential VARBINARY(1100) NOT NULL,
  public_key BLOB NOT NULL,
  counter BIGINT UNSIGNED NOT NULL,
  transports VARCHAR(120) NOT NULL,
  made_ms BIGINT NOT NULL,
  used_ms BIGINT NULL,
  UNIQUE KEY passkey_credential (credential),
  KEY passkey_person (house_id, person_id),
  CONSTRAINT passkey_house FOREIGN KEY (house_id) REFERENCES house (id),
  CONSTRAINT passkey_of FOREIGN KEY (person_id) REFERENCES person (id)
) ENGINE=InnoDB;

-- What a device was asked to prove itself by: each is answered once, within minutes. Nobody in particular where somebody comes in.
CREATE TABLE passkey_challenge (
  digest BINARY(32) NOT NULL PRIMARY KEY,
  house_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NULL,
  ends_ms BIGINT NOT NULL
) ENGINE=InnoDB;
