CREATE TABLE "last_changes" (
	"of" uuid PRIMARY KEY NOT NULL,
	"change" "xid8" NOT NULL
);--> statement-breakpoint
-- What was reckoned of a visit holds until something of it changes: the database says which transaction last did.
CREATE FUNCTION note_change(thing uuid) RETURNS void LANGUAGE sql AS $$
  INSERT INTO last_changes AS l (of, change) SELECT thing, pg_current_xact_id() WHERE thing IS NOT NULL
    ON CONFLICT (of) DO UPDATE SET change = excluded.change WHERE l.change <> excluded.change
$$;
--> statement-breakpoint
CREATE FUNCTION note_change_of_itself() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP <> 'DELETE' THEN
    PERFORM note_change(NEW.id);
  END IF;
  IF TG_OP <> 'INSERT' THEN
    PERFORM note_change(OLD.id);
  END IF;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE FUNCTION note_change_of_job() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP <> 'DELETE' THEN
    PERFORM note_change(NEW.job_id);
  END IF;
  IF TG_OP <> 'INSERT' THEN
    PERFORM note_change(OLD.job_id);
  END IF;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE FUNCTION note_change_of_clock() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP <> 'DELETE' THEN
    PERFORM note_change(NEW.clock_id);
  END IF;
  IF TG_OP <> 'INSERT' THEN
    PERFORM note_change(OLD.clock_id);
  END IF;
  RETURN NULL;
END
$$;
--> statement-breakpoint
CREATE TRIGGER owners_note_change AFTER INSERT OR UPDATE OR DELETE ON owners FOR EACH ROW EXECUTE FUNCTION note_change_of_itself();
--> statement-breakpoint
CREATE TRIGGER clocks_note_change AFTER INSERT OR UPDATE OR DELETE ON clocks FOR EACH ROW EXECUTE FUNCTION note_change_of_itself();
--> statement-breakpoint
CREATE TRIGGER jobs_note_change AFTER INSERT OR UPDATE OR DELETE ON jobs FOR EACH ROW EXECUTE FUNCTION note_change_of_itself();
--> statement-breakpoint
CREATE TRIGGER plate_maps_note_change AFTER INSERT OR UPDATE OR DELETE ON plate_maps FOR EACH ROW EXECUTE FUNCTION note_change_of_clock();
--> statement-breakpoint
CREATE TRIGGER train_sheets_note_change AFTER INSERT OR UPDATE OR DELETE ON train_sheets FOR EACH ROW EXECUTE FUNCTION note_change_of_clock();
--> statement-breakpoint
CREATE TRIGGER power_offs_note_change AFTER INSERT OR UPDATE OR DELETE ON power_offs FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER gate_overrides_note_change AFTER INSERT OR UPDATE OR DELETE ON gate_overrides FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER holes_note_change AFTER INSERT OR UPDATE OR DELETE ON holes FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER arbor_tests_note_change AFTER INSERT OR UPDATE OR DELETE ON arbor_tests FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER pivots_note_change AFTER INSERT OR UPDATE OR DELETE ON pivots FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER bushings_note_change AFTER INSERT OR UPDATE OR DELETE ON bushings FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER reservations_note_change AFTER INSERT OR UPDATE OR DELETE ON reservations FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER wheel_sheets_note_change AFTER INSERT OR UPDATE OR DELETE ON wheel_sheets FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER spring_sheets_note_change AFTER INSERT OR UPDATE OR DELETE ON spring_sheets FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER suspensions_note_change AFTER INSERT OR UPDATE OR DELETE ON suspensions FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER escapement_sheets_note_change AFTER INSERT OR UPDATE OR DELETE ON escapement_sheets FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER depth_trials_note_change AFTER INSERT OR UPDATE OR DELETE ON depth_trials FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER made_parts_note_change AFTER INSERT OR UPDATE OR DELETE ON made_parts FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER dry_runs_note_change AFTER INSERT OR UPDATE OR DELETE ON dry_runs FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER oil_sheets_note_change AFTER INSERT OR UPDATE OR DELETE ON oil_sheets FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER witnesses_note_change AFTER INSERT OR UPDATE OR DELETE ON witnesses FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER strike_counts_note_change AFTER INSERT OR UPDATE OR DELETE ON strike_counts FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER watches_note_change AFTER INSERT OR UPDATE OR DELETE ON watches FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER footings_note_change AFTER INSERT OR UPDATE OR DELETE ON footings FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER pendulums_note_change AFTER INSERT OR UPDATE OR DELETE ON pendulums FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER run_downs_note_change AFTER INSERT OR UPDATE OR DELETE ON run_downs FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER thermometers_note_change AFTER INSERT OR UPDATE OR DELETE ON thermometers FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER listenings_note_change AFTER INSERT OR UPDATE OR DELETE ON listenings FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER readings_note_change AFTER INSERT OR UPDATE OR DELETE ON readings FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER rate_events_note_change AFTER INSERT OR UPDATE OR DELETE ON rate_events FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER estimates_note_change AFTER INSERT OR UPDATE OR DELETE ON estimates FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER strip_marks_note_change AFTER INSERT OR UPDATE OR DELETE ON strip_marks FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER strip_steps_note_change AFTER INSERT OR UPDATE OR DELETE ON strip_steps FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER clean_parts_note_change AFTER INSERT OR UPDATE OR DELETE ON clean_parts FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER timers_note_change AFTER INSERT OR UPDATE OR DELETE ON timers FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER now_marks_note_change AFTER INSERT OR UPDATE OR DELETE ON now_marks FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER observations_note_change AFTER INSERT OR UPDATE OR DELETE ON observations FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
--> statement-breakpoint
CREATE TRIGGER journal_note_change AFTER INSERT OR UPDATE OR DELETE ON journal FOR EACH ROW EXECUTE FUNCTION note_change_of_job();
