ALTER TABLE "jobs" ADD COLUMN "ending" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "scope" text DEFAULT 'whole' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "scope_train" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "scope_reason" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "waits_for" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "waits_note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "waits_until" date;--> statement-breakpoint
ALTER TABLE "owners" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
-- An owner is found by telephone and address as well as by name.
CREATE INDEX owners_phone_find ON owners USING gin (phone gin_trgm_ops);
--> statement-breakpoint
CREATE INDEX owners_address_find ON owners USING gin (address gin_trgm_ops);
--> statement-breakpoint
-- Which clocks at home were oiled when, without reading every event.
CREATE INDEX rate_events_oiled ON rate_events (job_id, at) WHERE kind = 'oiled';
