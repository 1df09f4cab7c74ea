CREATE TABLE "donors" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"count" integer,
	"module_mm" double precision,
	"bore_mm" double precision,
	"outside_mm" double precision,
	"arbor_mm" double precision,
	"side" text NOT NULL,
	"there" integer NOT NULL,
	"from" text NOT NULL,
	"drawer" text NOT NULL,
	"note" text NOT NULL,
	"file_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "tools" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"shape" text NOT NULL,
	"cut" text NOT NULL,
	"grit" integer,
	"length_mm" double precision,
	"width_mm" double precision,
	"kept_for" text NOT NULL,
	"hard" boolean NOT NULL,
	"worn" text NOT NULL,
	"drawer" text NOT NULL,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "depth_trials" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"arbor" text NOT NULL,
	"arbor_index" integer NOT NULL,
	"gearing" text NOT NULL,
	"runner_mm" double precision,
	"module_mm" double precision,
	"trials" jsonb NOT NULL,
	"kept_mm" double precision,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "escapement_sheets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"teeth" integer,
	"tip_radius_mm" double precision,
	"centre_distance_mm" double precision,
	"spanned_spaces" double precision,
	"pallet_mm" double precision,
	"across_mm" double precision,
	"lift_deg" double precision,
	"lock_deg" double precision,
	"swing_deg" double precision,
	"pallet_entry" jsonb NOT NULL,
	"pallet_exit" jsonb NOT NULL,
	"photo_id" uuid,
	"trueing" jsonb,
	"nearer_mm" double precision NOT NULL,
	"opened_deg" double precision NOT NULL,
	"tip_radii_mm" jsonb NOT NULL,
	"bent" jsonb NOT NULL,
	"left_low" jsonb NOT NULL,
	"topped" jsonb NOT NULL,
	"groove_entry_mm" double precision,
	"groove_exit_mm" double precision,
	"faces" text NOT NULL,
	"cock" text NOT NULL,
	"balance" text NOT NULL,
	"staff" text NOT NULL,
	"jewel" text NOT NULL,
	"roller" text NOT NULL,
	"way" text NOT NULL,
	"owner_agreed" boolean NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "made_parts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"part" text NOT NULL,
	"name" text NOT NULL,
	"sizes" jsonb NOT NULL,
	"done" jsonb NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "spring_sheets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"width_mm" double precision,
	"inner_mm" double precision,
	"middle_mm" double precision,
	"outer_mm" double precision,
	"length_mm" double precision,
	"coils" double precision,
	"barrel_inside_mm" double precision,
	"barrel_height_mm" double precision,
	"arbor_mm" double precision,
	"turns_used" double precision,
	"loose_mm" double precision,
	"end" text NOT NULL,
	"hole_end" text NOT NULL,
	"set" boolean NOT NULL,
	"rust" boolean NOT NULL,
	"cracks" boolean NOT NULL,
	"choice" text NOT NULL,
	"stock_id" uuid,
	"fitted_width_mm" double precision,
	"fitted_thick_mm" double precision,
	"fitted_length_mm" double precision,
	"winder_nmm" double precision,
	"done" jsonb NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "suspensions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"blades" integer NOT NULL,
	"thick_mm" double precision,
	"width_mm" double precision,
	"free_mm" double precision,
	"mass_kg" double precision,
	"kinked" boolean NOT NULL,
	"rust" boolean NOT NULL,
	"twisted" boolean NOT NULL,
	"makeshift" boolean NOT NULL,
	"fitted_thick_mm" double precision,
	"fitted_width_mm" double precision,
	"fitted_free_mm" double precision,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "wheel_sheets" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"arbor" text NOT NULL,
	"arbor_index" integer NOT NULL,
	"part" text NOT NULL,
	"count" integer,
	"outside_mm" double precision,
	"bore_mm" double precision,
	"thick_mm" double precision,
	"faults" jsonb NOT NULL,
	"worn" text NOT NULL,
	"click" text NOT NULL,
	"click_spring" text NOT NULL,
	"rivet" text NOT NULL,
	"rivet_mm" double precision,
	"holes" jsonb NOT NULL,
	"mirror_deg" double precision,
	"arms" integer,
	"arm_mm" double precision,
	"leaf_mm" double precision,
	"groove_from_mm" double precision,
	"groove_to_mm" double precision,
	"groove_mm" double precision,
	"trundles_mm" jsonb NOT NULL,
	"shroud" text NOT NULL,
	"way" text NOT NULL,
	"donor_id" uuid,
	"owner_agreed" boolean NOT NULL,
	"done" jsonb NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"who_id" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "stock" ADD COLUMN "width_mm" double precision;--> statement-breakpoint
ALTER TABLE "stock" ADD COLUMN "thick_mm" double precision;--> statement-breakpoint
ALTER TABLE "donors" ADD CONSTRAINT "donors_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "depth_trials" ADD CONSTRAINT "depth_trials_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "depth_trials" ADD CONSTRAINT "depth_trials_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "escapement_sheets" ADD CONSTRAINT "escapement_sheets_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "escapement_sheets" ADD CONSTRAINT "escapement_sheets_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "escapement_sheets" ADD CONSTRAINT "escapement_sheets_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "made_parts" ADD CONSTRAINT "made_parts_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "made_parts" ADD CONSTRAINT "made_parts_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spring_sheets" ADD CONSTRAINT "spring_sheets_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spring_sheets" ADD CONSTRAINT "spring_sheets_stock_id_stock_id_fk" FOREIGN KEY ("stock_id") REFERENCES "public"."stock"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spring_sheets" ADD CONSTRAINT "spring_sheets_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "suspensions" ADD CONSTRAINT "suspensions_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "suspensions" ADD CONSTRAINT "suspensions_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wheel_sheets" ADD CONSTRAINT "wheel_sheets_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wheel_sheets" ADD CONSTRAINT "wheel_sheets_donor_id_donors_id_fk" FOREIGN KEY ("donor_id") REFERENCES "public"."donors"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wheel_sheets" ADD CONSTRAINT "wheel_sheets_who_id_people_id_fk" FOREIGN KEY ("who_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "donors_kind_count" ON "donors" USING btree ("kind","count");--> statement-breakpoint
CREATE UNIQUE INDEX "depth_trials_place" ON "depth_trials" USING btree ("job_id","train","arbor");--> statement-breakpoint
CREATE UNIQUE INDEX "escapement_sheets_job" ON "escapement_sheets" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "made_parts_job" ON "made_parts" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "spring_sheets_place" ON "spring_sheets" USING btree ("job_id","train");--> statement-breakpoint
CREATE INDEX "spring_sheets_stock" ON "spring_sheets" USING btree ("stock_id");--> statement-breakpoint
CREATE UNIQUE INDEX "suspensions_job" ON "suspensions" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "wheel_sheets_place" ON "wheel_sheets" USING btree ("job_id","train","arbor","part");