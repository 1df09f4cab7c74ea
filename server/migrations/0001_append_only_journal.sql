-- The journal is the clock's memory: an entry, once written, stays. A correction is a new entry that names the old one.
CREATE FUNCTION journal_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'the journal is append-only: write a correction that names the entry' USING ERRCODE = 'restrict_violation';
END
$$;
--> statement-breakpoint
CREATE TRIGGER journal_no_change BEFORE UPDATE OR DELETE ON journal FOR EACH ROW EXECUTE FUNCTION journal_stays();
--> statement-breakpoint
CREATE TRIGGER journal_no_truncate BEFORE TRUNCATE ON journal FOR EACH STATEMENT EXECUTE FUNCTION journal_stays();
