-- A visit's number is counted in the change that uses it: a sequence burns one for every change that is undone.
ALTER TABLE "jobs" ALTER COLUMN "number" DROP DEFAULT;--> statement-breakpoint
DROP SEQUENCE IF EXISTS "jobs_number_seq";--> statement-breakpoint
ALTER TABLE "gate_overrides" ADD COLUMN "brought" jsonb;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "number_elsewhere" integer;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "staged" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "journal" ADD COLUMN "brought" jsonb;
