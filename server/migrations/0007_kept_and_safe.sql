DROP INDEX "holes_job";--> statement-breakpoint
DROP INDEX "power_offs_job";--> statement-breakpoint
DROP INDEX "observations_job";--> statement-breakpoint
DROP INDEX "strip_marks_job";--> statement-breakpoint
DROP INDEX "train_sheets_clock";--> statement-breakpoint
DROP INDEX "arbor_tests_job";--> statement-breakpoint
DROP INDEX "pivots_job";--> statement-breakpoint
ALTER TABLE "journal" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "gate_overrides" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "holes" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "journal" ADD COLUMN "about" text DEFAULT 'job' NOT NULL;--> statement-breakpoint
ALTER TABLE "journal" ADD COLUMN "about_id" text;--> statement-breakpoint
ALTER TABLE "journal" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "listenings" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "digest" text;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "who" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "power_offs" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "rate_events" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "clean_parts" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "conditions" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "confirmed_causes" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "estimates" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "now_marks" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "observations" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "strip_marks" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "strip_steps" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "timers" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "arbor_tests" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "bushings" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "pivots" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "reservations" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "stock_imports" ADD COLUMN "who_id" uuid;--> statement-breakpoint
ALTER TABLE "stock_imports" ADD COLUMN "digest" text;--> statement-breakpoint
ALTER TABLE "gate_overrides" ADD CONSTRAINT "gate_overrides_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "holes" ADD CONSTRAINT "holes_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal" ADD CONSTRAINT "journal_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listenings" ADD CONSTRAINT "listenings_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "power_offs" ADD CONSTRAINT "power_offs_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rate_events" ADD CONSTRAINT "rate_events_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "clean_parts" ADD CONSTRAINT "clean_parts_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conditions" ADD CONSTRAINT "conditions_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "confirmed_causes" ADD CONSTRAINT "confirmed_causes_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "estimates" ADD CONSTRAINT "estimates_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "now_marks" ADD CONSTRAINT "now_marks_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "observations" ADD CONSTRAINT "observations_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_marks" ADD CONSTRAINT "strip_marks_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_steps" ADD CONSTRAINT "strip_steps_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "timers" ADD CONSTRAINT "timers_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "arbor_tests" ADD CONSTRAINT "arbor_tests_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bushings" ADD CONSTRAINT "bushings_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pivots" ADD CONSTRAINT "pivots_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservations" ADD CONSTRAINT "reservations_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stock_imports" ADD CONSTRAINT "stock_imports_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Two rows of one thing were let in before; the newer stands, and the other is told in the journal, which keeps it.
CREATE FUNCTION keep_newest(of_table text, place text[]) RETURNS void LANGUAGE plpgsql AS $$
DECLARE
  places text := (SELECT string_agg(quote_ident(p), ', ') FROM unnest(place) p);
  other record;
BEGIN
  FOR other IN EXECUTE format(
    'SELECT t.id, t.stands, t.kept FROM (
       SELECT r.id, to_jsonb(r) AS kept, row_number() OVER w AS n, first_value(r.id) OVER w AS stands
       FROM %1$I r
       WHERE (%2$s) IN (SELECT %2$s FROM %1$I GROUP BY %2$s HAVING count(*) > 1)
       WINDOW w AS (PARTITION BY %2$s ORDER BY
         (SELECT max(j.at) FROM journal j WHERE j.figures ->> ''id'' = r.id::text) DESC NULLS LAST,
         (to_jsonb(r) ->> ''version'')::int DESC NULLS LAST, r.id DESC)
     ) t WHERE t.n > 1', of_table, places)
  LOOP
    IF of_table = 'holes' THEN
      UPDATE reservations SET hole_id = other.stands WHERE hole_id = other.id;
      UPDATE bushings SET hole_id = other.stands
        WHERE hole_id = other.id AND NOT EXISTS (SELECT 1 FROM bushings b WHERE b.hole_id = other.stands);
      INSERT INTO journal (id, job_id, at, who, kind, text, figures)
        SELECT gen_random_uuid(), b.job_id, now(), 'Treadle', 'kept',
          'The work on a hole that was on the list twice; the newer stands, and this is the other.', to_jsonb(b)
        FROM bushings b WHERE b.hole_id = other.id;
    END IF;
    INSERT INTO journal (id, job_id, about, about_id, at, who, kind, text, figures)
      VALUES (gen_random_uuid(), (other.kept ->> 'job_id')::uuid,
        CASE WHEN other.kept ? 'job_id' THEN 'job' ELSE 'clock' END, other.kept ->> 'clock_id', now(), 'Treadle', 'kept',
        format('This was kept twice (%s): the newer stands, and this is the other.', replace(of_table, '_', ' ')),
        other.kept);
    EXECUTE format('DELETE FROM %I WHERE id = $1', of_table) USING other.id;
  END LOOP;
END $$;
--> statement-breakpoint
-- What today's rules would not let in, put right without losing a row. Called again after an older backup is restored.
CREATE FUNCTION settle_older() RETURNS void LANGUAGE plpgsql AS $$
DECLARE
  one text[];
BEGIN
  -- One line holds one line.
  FOREACH one SLICE 1 IN ARRAY '{{owners,name},{owners,phone},{owners,address},{clocks,name},{people,name},{people,initials},
    {stock,name},{stock,material},{stock,drawer},{strip_steps,part},{strip_steps,screws},{strip_steps,marks},
    {clean_parts,name},{timers,title},{conditions,name},{pivots,note},{pivots,arbor},{arbor_tests,note},
    {arbor_tests,arbor},{holes,arbor}}'::text[]
  LOOP
    EXECUTE format('UPDATE %1$I SET %2$I = trim(regexp_replace(%2$I, %3$L, '' '', ''g'')) WHERE %2$I ~ %3$L',
      one[1], one[2], '[\u0001-\u001f\u007f-\u009f\u2028\u2029]+');
  END LOOP;
  PERFORM keep_newest('holes', '{job_id,train,arbor,plate}');
  PERFORM keep_newest('pivots', '{job_id,train,arbor,plate}');
  PERFORM keep_newest('arbor_tests', '{job_id,train,arbor}');
  PERFORM keep_newest('power_offs', '{job_id,train}');
  PERFORM keep_newest('observations', '{job_id,key}');
  PERFORM keep_newest('strip_marks', '{job_id,key}');
  PERFORM keep_newest('train_sheets', '{clock_id,train}');
  -- Pictures that were sent twice at once, and sounds of listenings that were taken back.
  DELETE FROM files WHERE id NOT IN (
    SELECT original_id FROM photos UNION ALL SELECT screen_id FROM photos
    UNION ALL SELECT thumb_id FROM photos WHERE thumb_id IS NOT NULL
    UNION ALL SELECT sound_id FROM listenings WHERE sound_id IS NOT NULL);
  UPDATE settings SET "values" = jsonb_set("values", '{workshop}',
    to_jsonb(trim(regexp_replace("values" ->> 'workshop', '[\u0001-\u001f\u007f-\u009f\u2028\u2029]+', ' ', 'g'))))
    WHERE "values" ->> 'workshop' ~ '[\u0001-\u001f\u007f-\u009f\u2028\u2029]';
END $$;
--> statement-breakpoint
SELECT settle_older();
--> statement-breakpoint
CREATE UNIQUE INDEX "holes_place" ON "holes" USING btree ("job_id","train","arbor","plate");--> statement-breakpoint
CREATE INDEX "journal_about" ON "journal" USING btree ("about","about_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "power_offs_train" ON "power_offs" USING btree ("job_id","train");--> statement-breakpoint
CREATE UNIQUE INDEX "observations_key" ON "observations" USING btree ("job_id","key");--> statement-breakpoint
CREATE UNIQUE INDEX "strip_marks_key" ON "strip_marks" USING btree ("job_id","key");--> statement-breakpoint
CREATE UNIQUE INDEX "train_sheets_train" ON "train_sheets" USING btree ("clock_id","train");--> statement-breakpoint
CREATE UNIQUE INDEX "arbor_tests_arbor" ON "arbor_tests" USING btree ("job_id","train","arbor");--> statement-breakpoint
CREATE UNIQUE INDEX "pivots_place" ON "pivots" USING btree ("job_id","train","arbor","plate");