-- The newest reading of each condition is found without looking at all of them: a reading knows what its print knows.
ALTER TABLE reading
  ADD COLUMN condition_id BIGINT UNSIGNED NULL AFTER print_id,
  ADD COLUMN purpose VARCHAR(20) NULL AFTER condition_id;

UPDATE reading r JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id SET r.condition_id = p.condition_id, r.purpose = c.purpose;

ALTER TABLE reading ADD KEY reading_newest (house_id, condition_id, purpose, withdrawn_ms, id);

CREATE TRIGGER reading_knows_its_print BEFORE INSERT ON reading FOR EACH ROW SET NEW.condition_id = (SELECT p.condition_id FROM print p WHERE p.id = NEW.print_id), NEW.purpose = (SELECT c.purpose FROM print p JOIN chart c ON c.id = p.chart_id WHERE p.id = NEW.print_id);
