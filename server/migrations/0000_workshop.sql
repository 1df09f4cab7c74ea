CREATE TABLE "clocks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"owner_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"marks" text NOT NULL,
	"trains" jsonb NOT NULL,
	"pendulum" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "file_chunks" (
	"file_id" uuid NOT NULL,
	"part" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "file_chunks_file_id_part_pk" PRIMARY KEY("file_id","part")
);
--> statement-breakpoint
CREATE TABLE "files" (
	"id" uuid PRIMARY KEY NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "gate_overrides" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"gate" text NOT NULL,
	"reason" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "holes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"arbor" text NOT NULL,
	"arbor_index" integer NOT NULL,
	"plate" text NOT NULL,
	"role" text NOT NULL,
	"long_axis_mm" double precision,
	"short_axis_mm" double precision,
	"wear_deg" double precision,
	"pivot_mm" double precision,
	"plate_mm" double precision,
	"module_mm" double precision,
	"depth_shift_mm" double precision,
	"typed" jsonb NOT NULL,
	"verdict_override" text,
	"override_reason" text NOT NULL,
	"bushed" boolean NOT NULL,
	"flagged" boolean NOT NULL,
	"measured_by" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "jobs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" serial NOT NULL,
	"clock_id" uuid NOT NULL,
	"bay" text NOT NULL,
	"complaint" text NOT NULL,
	"runs" text NOT NULL,
	"came_with" jsonb NOT NULL,
	"promised_on" date,
	"received_at" timestamp with time zone NOT NULL,
	"parted_at" timestamp with time zone,
	"closed_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "jobs_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "journal" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"kind" text NOT NULL,
	"text" text NOT NULL,
	"figures" jsonb NOT NULL,
	"corrects" uuid
);
--> statement-breakpoint
CREATE TABLE "listenings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"pickup" text NOT NULL,
	"file_name" text NOT NULL,
	"purpose" text NOT NULL,
	"first_side" text,
	"beats_per_hour" double precision NOT NULL,
	"nominal_beats_per_hour" double precision NOT NULL,
	"rate_seconds_per_day" double precision NOT NULL,
	"rate_standard_error" double precision NOT NULL,
	"first_to_second_ms" double precision NOT NULL,
	"second_to_first_ms" double precision NOT NULL,
	"out_of_beat_standard_error" double precision NOT NULL,
	"scatter_ms" double precision NOT NULL,
	"beats_heard" integer NOT NULL,
	"beats_expected" integer NOT NULL,
	"rejected" integer NOT NULL,
	"slips" integer NOT NULL,
	"seconds_analysed" double precision NOT NULL,
	"confidence" double precision NOT NULL,
	"analyser_version" text NOT NULL,
	"beat_times_s" jsonb NOT NULL,
	"has_sound" boolean NOT NULL,
	"change_mm" double precision,
	"sound_id" uuid
);
--> statement-breakpoint
CREATE TABLE "owners" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"phone" text NOT NULL,
	"address" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"initials" text NOT NULL,
	"active" boolean NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "photos" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"caption" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"original_id" uuid NOT NULL,
	"screen_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "power_offs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"method" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rate_events" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"kind" text NOT NULL,
	"turns" double precision,
	"note" text NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "readings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"error_seconds" double precision NOT NULL,
	"sigma_seconds" double precision NOT NULL,
	"way" text NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "settings" (
	"id" integer PRIMARY KEY NOT NULL,
	"values" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "clocks" ADD CONSTRAINT "clocks_owner_id_owners_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."owners"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_chunks" ADD CONSTRAINT "file_chunks_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gate_overrides" ADD CONSTRAINT "gate_overrides_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "holes" ADD CONSTRAINT "holes_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "jobs" ADD CONSTRAINT "jobs_clock_id_clocks_id_fk" FOREIGN KEY ("clock_id") REFERENCES "public"."clocks"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "journal" ADD CONSTRAINT "journal_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listenings" ADD CONSTRAINT "listenings_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listenings" ADD CONSTRAINT "listenings_sound_id_files_id_fk" FOREIGN KEY ("sound_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_original_id_files_id_fk" FOREIGN KEY ("original_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_screen_id_files_id_fk" FOREIGN KEY ("screen_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "power_offs" ADD CONSTRAINT "power_offs_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rate_events" ADD CONSTRAINT "rate_events_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "gate_overrides_job" ON "gate_overrides" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "holes_job" ON "holes" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "jobs_clock" ON "jobs" USING btree ("clock_id");--> statement-breakpoint
CREATE INDEX "jobs_open" ON "jobs" USING btree ("closed_at");--> statement-breakpoint
CREATE INDEX "journal_job" ON "journal" USING btree ("job_id","at");--> statement-breakpoint
CREATE INDEX "listenings_job" ON "listenings" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "photos_job" ON "photos" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "power_offs_job" ON "power_offs" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "rate_events_job" ON "rate_events" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "readings_job" ON "readings" USING btree ("job_id");