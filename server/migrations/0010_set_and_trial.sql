CREATE TABLE "oils" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"opened_on" text,
	"keeps_years" double precision NOT NULL,
	"school" text NOT NULL,
	"drawer" text NOT NULL,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "dry_runs" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"driven_by" text NOT NULL,
	"amount" double precision,
	"backs_off" text NOT NULL,
	"verdict" text NOT NULL,
	"ran_at" timestamp with time zone NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "oil_sheets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"pivot_oil_id" uuid,
	"heavy_oil_id" uuid,
	"grease_id" uuid,
	"added" jsonb NOT NULL,
	"sinks" jsonb NOT NULL,
	"done" jsonb NOT NULL,
	"left" jsonb NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "strike_counts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"hour" integer NOT NULL,
	"quarter" integer NOT NULL,
	"quarters" integer,
	"blows" integer,
	"way" text NOT NULL,
	"heard_at" timestamp with time zone NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "witnesses" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"moment" text NOT NULL,
	"side" text NOT NULL,
	"photo_id" uuid NOT NULL,
	"state" text NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "strip_steps" ADD COLUMN "not_back" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "rate_events" ADD COLUMN "showed" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "dry_runs" ADD CONSTRAINT "dry_runs_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "dry_runs" ADD CONSTRAINT "dry_runs_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_sheets" ADD CONSTRAINT "oil_sheets_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_sheets" ADD CONSTRAINT "oil_sheets_pivot_oil_id_oils_id_fk" FOREIGN KEY ("pivot_oil_id") REFERENCES "public"."oils"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_sheets" ADD CONSTRAINT "oil_sheets_heavy_oil_id_oils_id_fk" FOREIGN KEY ("heavy_oil_id") REFERENCES "public"."oils"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_sheets" ADD CONSTRAINT "oil_sheets_grease_id_oils_id_fk" FOREIGN KEY ("grease_id") REFERENCES "public"."oils"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "oil_sheets" ADD CONSTRAINT "oil_sheets_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strike_counts" ADD CONSTRAINT "strike_counts_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "strike_counts" ADD CONSTRAINT "strike_counts_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "witnesses" ADD CONSTRAINT "witnesses_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "witnesses" ADD CONSTRAINT "witnesses_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "witnesses" ADD CONSTRAINT "witnesses_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "dry_runs_train" ON "dry_runs" USING btree ("job_id","train");--> statement-breakpoint
CREATE UNIQUE INDEX "oil_sheets_job" ON "oil_sheets" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "oil_sheets_pivot_oil" ON "oil_sheets" USING btree ("pivot_oil_id");--> statement-breakpoint
CREATE UNIQUE INDEX "strike_counts_time" ON "strike_counts" USING btree ("job_id","hour","quarter");--> statement-breakpoint
CREATE INDEX "witnesses_job" ON "witnesses" USING btree ("job_id");--> statement-breakpoint
-- Until now one line of the log said of all trains at once that they ran dry. A run of each train is made of it, without
-- figures, since nobody wrote any; the log then no longer has it. A backup from before is brought up to date by the same.
CREATE FUNCTION carry_dry_runs() RETURNS void LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO dry_runs (id, job_id, train, driven_by, amount, backs_off, verdict, ran_at, note, at, who, who_id, version)
    SELECT gen_random_uuid(), job_id, train,
      CASE WHEN power IN ('weight', 'chime-drum') THEN 'grams' ELSE 'turns' END,
      NULL, '', 'free', at, 'Said once, of all its trains.', at, who, who_id, 1
    FROM (
      SELECT DISTINCT ON (said.job_id, of_clock ->> 'train') said.job_id, of_clock ->> 'train' AS train,
        of_clock ->> 'power' AS power, said.at, said.who, said.who_id
      FROM rate_events AS said
      JOIN jobs ON jobs.id = said.job_id
      JOIN clocks ON clocks.id = jobs.clock_id
      CROSS JOIN jsonb_array_elements(clocks.trains) AS of_clock
      WHERE said.kind = 'dry'
      ORDER BY said.job_id, of_clock ->> 'train', said.at DESC
    ) AS runs
    WHERE NOT EXISTS (SELECT 1 FROM dry_runs WHERE dry_runs.job_id = runs.job_id AND dry_runs.train = runs.train);
  DELETE FROM rate_events WHERE kind = 'dry';
END $$;
--> statement-breakpoint
SELECT carry_dry_runs();
