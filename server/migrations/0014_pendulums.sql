CREATE TABLE "pendulums" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"parts" jsonb NOT NULL,
	"thread_up_mm" double precision,
	"thread_down_mm" double precision,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "run_downs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"when" text NOT NULL,
	"ran_at" timestamp with time zone NOT NULL,
	"way" text NOT NULL,
	"readings" jsonb NOT NULL,
	"semi_arc_deg" double precision,
	"mass_g" double precision,
	"drive" text NOT NULL,
	"weight_kg" double precision,
	"fall_mm" double precision,
	"torque_nmm" double precision,
	"turns" double precision,
	"hours" double precision,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "thermometers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"temperatures" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "clocks" ADD COLUMN "home" jsonb;--> statement-breakpoint
ALTER TABLE "rate_events" ADD COLUMN "grams" double precision;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "temperature_c" double precision;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "semi_arc_deg" double precision;--> statement-breakpoint
ALTER TABLE "readings" ADD COLUMN "pressure_hpa" double precision;--> statement-breakpoint
ALTER TABLE "pendulums" ADD CONSTRAINT "pendulums_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pendulums" ADD CONSTRAINT "pendulums_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_downs" ADD CONSTRAINT "run_downs_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "run_downs" ADD CONSTRAINT "run_downs_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "thermometers" ADD CONSTRAINT "thermometers_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "thermometers" ADD CONSTRAINT "thermometers_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "pendulums_job" ON "pendulums" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "run_downs_job" ON "run_downs" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "thermometers_job" ON "thermometers" USING btree ("job_id");