-- Patches that a strip still lacks: what comes later is laid into what is there.
ALTER TABLE strip_reading ADD COLUMN missing INT UNSIGNED NOT NULL DEFAULT 0;
