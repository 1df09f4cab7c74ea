-- Cutters stood among the settings as bare sizes; they belong in the drawers with all else that has a size.
-- A workshop that never changed its settings had the usual nine. Called again after an older backup is restored.
CREATE FUNCTION carry_cutters() RETURNS void LANGUAGE plpgsql AS $$
DECLARE
  sizes jsonb;
BEGIN
  SELECT "values" -> 'cuttersMm' INTO sizes FROM settings WHERE id = 1;
  IF sizes IS NULL AND NOT EXISTS (SELECT 1 FROM settings)
    AND EXISTS (SELECT 1 FROM jobs) AND NOT EXISTS (SELECT 1 FROM stock) THEN
    sizes := '[1.6, 1.8, 2, 2.3, 2.7, 3, 3.5, 4, 5]';
  END IF;
  INSERT INTO stock (id, kind, name, material, measured_mm, count, low_at, drawer)
    SELECT gen_random_uuid(), 'cutter', '', '', size::text::double precision, 1, 0, ''
    FROM jsonb_array_elements(coalesce(sizes, '[]')) AS size;
  UPDATE settings SET "values" = "values" - 'cuttersMm' WHERE "values" ? 'cuttersMm';
END $$;
--> statement-breakpoint
SELECT carry_cutters();
