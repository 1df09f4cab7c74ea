CREATE TABLE "watch_marks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"watch_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"from_s" double precision NOT NULL,
	"to_s" double precision,
	"blows" integer,
	"bird" boolean NOT NULL,
	"note" text NOT NULL,
	"sound_id" uuid
);
--> statement-breakpoint
CREATE TABLE "watch_minutes" (
	"watch_id" uuid NOT NULL,
	"minute" integer NOT NULL,
	"from_s" double precision NOT NULL,
	"seconds" real NOT NULL,
	"beats_heard" integer NOT NULL,
	"beats_expected" integer NOT NULL,
	"rate_seconds_per_day" double precision,
	"rate_standard_error" double precision,
	"out_of_beat_ms" double precision,
	"out_of_beat_standard_error" double precision,
	"scatter_ms" double precision,
	"first_db" real,
	"second_db" real,
	"ahead_s" double precision,
	"since_s" double precision NOT NULL,
	CONSTRAINT "watch_minutes_watch_id_minute_pk" PRIMARY KEY("watch_id","minute")
);
--> statement-breakpoint
CREATE TABLE "watches" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"began_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"device" text NOT NULL,
	"pickup" text NOT NULL,
	"beats_per_hour" double precision NOT NULL,
	"ticks" text NOT NULL,
	"ppm" double precision NOT NULL,
	"ppm_error" double precision,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "listenings" ADD COLUMN "sides" jsonb;--> statement-breakpoint
ALTER TABLE "watch_marks" ADD CONSTRAINT "watch_marks_watch_id_watches_id_fk" FOREIGN KEY ("watch_id") REFERENCES "public"."watches"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watch_marks" ADD CONSTRAINT "watch_marks_sound_id_files_id_fk" FOREIGN KEY ("sound_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watch_minutes" ADD CONSTRAINT "watch_minutes_watch_id_watches_id_fk" FOREIGN KEY ("watch_id") REFERENCES "public"."watches"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "watches" ADD CONSTRAINT "watches_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "watch_marks_watch" ON "watch_marks" USING btree ("watch_id");--> statement-breakpoint
CREATE INDEX "watches_job" ON "watches" USING btree ("job_id");