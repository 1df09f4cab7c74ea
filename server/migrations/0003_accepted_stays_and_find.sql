-- What an owner accepted stays as it was accepted; a later finding makes a new revision.
CREATE FUNCTION accepted_estimate_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.state = 'accepted' THEN
    RAISE EXCEPTION 'an accepted estimate stays as it is: make a new revision' USING ERRCODE = 'restrict_violation';
  END IF;
  IF TG_OP = 'DELETE' THEN
    RETURN OLD;
  END IF;
  RETURN NEW;
END
$$;
--> statement-breakpoint
CREATE TRIGGER estimates_accepted_stays BEFORE UPDATE OR DELETE ON estimates FOR EACH ROW EXECUTE FUNCTION accepted_estimate_stays();
--> statement-breakpoint
-- Finding as one types: any three letters in a row of a name or a mark, without reading every row.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
--> statement-breakpoint
CREATE INDEX owners_name_find ON owners USING gin (name gin_trgm_ops);
--> statement-breakpoint
CREATE INDEX clocks_name_find ON clocks USING gin (name gin_trgm_ops);
--> statement-breakpoint
CREATE INDEX clocks_marks_find ON clocks USING gin (marks gin_trgm_ops);
--> statement-breakpoint
CREATE INDEX clocks_owner ON clocks (owner_id);
--> statement-breakpoint
CREATE INDEX clocks_name ON clocks (name);
