-- By which filters (ISO 5-3) the house tells densities.
ALTER TABLE house ADD COLUMN density_status VARCHAR(1) NOT NULL DEFAULT 'E' AFTER units;
