CREATE TABLE "calendar_keys" (
	"id" integer PRIMARY KEY NOT NULL,
	"secret" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "clean_parts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"material" text NOT NULL,
	"finish" text NOT NULL,
	"done" boolean NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "conditions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"class" text NOT NULL,
	"note" text NOT NULL,
	"photo_id" uuid,
	"x" double precision,
	"y" double precision,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "confirmed_causes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"cause" text NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "estimates" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"state" text NOT NULL,
	"lines" jsonb NOT NULL,
	"choices" jsonb NOT NULL,
	"chosen" text NOT NULL,
	"currency" text NOT NULL,
	"tax_percent" text NOT NULL,
	"deposit_percent" text NOT NULL,
	"note" text NOT NULL,
	"sent_at" timestamp with time zone,
	"answer" jsonb,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "now_marks" (
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"subject" text NOT NULL,
	"state" text NOT NULL,
	"due_s" double precision,
	"until_s" double precision,
	"who" text NOT NULL,
	CONSTRAINT "now_marks_job_id_kind_subject_pk" PRIMARY KEY("job_id","kind","subject")
);
--> statement-breakpoint
CREATE TABLE "observations" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"key" text NOT NULL,
	"answer" text NOT NULL,
	"figure" double precision,
	"second" double precision,
	"note" text NOT NULL,
	"photo_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "strip_marks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"key" text NOT NULL,
	"state" text NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "strip_steps" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"position" double precision NOT NULL,
	"part" text NOT NULL,
	"tray" text NOT NULL,
	"screws" text NOT NULL,
	"marks" text NOT NULL,
	"remark" text NOT NULL,
	"count" integer NOT NULL,
	"photo_id" uuid,
	"back" boolean NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "timers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"title" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"stopped" boolean NOT NULL,
	"bath" text NOT NULL,
	"step" integer NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "train_sheets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"clock_id" uuid NOT NULL,
	"train" text NOT NULL,
	"arbors" jsonb NOT NULL,
	"hourly" integer,
	"escape" boolean NOT NULL,
	"great_turns" double precision,
	"motion" jsonb,
	"fault_period_s" double precision,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "workshop_tables" (
	"name" text PRIMARY KEY NOT NULL,
	"values" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "clocks" ADD COLUMN "work" jsonb DEFAULT '{"strikeWork":null,"moon":false,"calendar":false,"mercury":false}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "stands_at" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "moved_lately" text DEFAULT 'unknown' NOT NULL;--> statement-breakpoint
ALTER TABLE "jobs" ADD COLUMN "last_serviced" integer;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "thumb_id" uuid;--> statement-breakpoint
ALTER TABLE "power_offs" ADD COLUMN "proofs" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "clean_parts" ADD CONSTRAINT "clean_parts_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conditions" ADD CONSTRAINT "conditions_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conditions" ADD CONSTRAINT "conditions_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "confirmed_causes" ADD CONSTRAINT "confirmed_causes_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "estimates" ADD CONSTRAINT "estimates_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "now_marks" ADD CONSTRAINT "now_marks_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "observations" ADD CONSTRAINT "observations_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "observations" ADD CONSTRAINT "observations_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_marks" ADD CONSTRAINT "strip_marks_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_steps" ADD CONSTRAINT "strip_steps_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strip_steps" ADD CONSTRAINT "strip_steps_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "timers" ADD CONSTRAINT "timers_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "train_sheets" ADD CONSTRAINT "train_sheets_clock_id_clocks_id_fk" FOREIGN KEY ("clock_id") REFERENCES "public"."clocks"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "clean_parts_job" ON "clean_parts" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "conditions_job" ON "conditions" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "confirmed_causes_job" ON "confirmed_causes" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "estimates_revision" ON "estimates" USING btree ("job_id","revision");--> statement-breakpoint
CREATE INDEX "observations_job" ON "observations" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "strip_marks_job" ON "strip_marks" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "strip_steps_job" ON "strip_steps" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "timers_job" ON "timers" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "train_sheets_clock" ON "train_sheets" USING btree ("clock_id");--> statement-breakpoint
ALTER TABLE "photos" ADD CONSTRAINT "photos_thumb_id_files_id_fk" FOREIGN KEY ("thumb_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;