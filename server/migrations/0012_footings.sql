CREATE TABLE "footings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"way" text NOT NULL,
	"stood_at_deg" double precision NOT NULL,
	"even_at_deg" double precision NOT NULL,
	"standard_error" double precision NOT NULL,
	"ms_per_deg" double precision NOT NULL,
	"swings" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "watches" ADD COLUMN "temperatures" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "watches" ADD COLUMN "run" jsonb;--> statement-breakpoint
ALTER TABLE "footings" ADD CONSTRAINT "footings_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "footings" ADD CONSTRAINT "footings_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "footings_job" ON "footings" USING btree ("job_id");