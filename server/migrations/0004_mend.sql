CREATE TABLE "arbor_tests" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"arbor" text NOT NULL,
	"arbor_index" integer NOT NULL,
	"endshake_mm" double precision,
	"binds" jsonb NOT NULL,
	"feel" text NOT NULL,
	"tried" boolean NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "bushings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"hole_id" uuid NOT NULL,
	"method" text NOT NULL,
	"old" text NOT NULL,
	"spoilt" boolean NOT NULL,
	"source" text NOT NULL,
	"stock_id" uuid,
	"cutter_mm" double precision,
	"outside_mm" double precision,
	"inside_mm" double precision,
	"length_mm" double precision,
	"pivot_mm" double precision,
	"finished_mm" double precision,
	"done" jsonb NOT NULL,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pivots" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"train" text NOT NULL,
	"arbor" text NOT NULL,
	"arbor_index" integer NOT NULL,
	"plate" text NOT NULL,
	"nail" text NOT NULL,
	"first_mm" double precision,
	"second_mm" double precision,
	"out_of_round_mm" double precision,
	"runout_mm" double precision,
	"groove_depth_mm" double precision,
	"original_mm" double precision,
	"arbor_mm" double precision,
	"shoulder" text NOT NULL,
	"rust" boolean NOT NULL,
	"owner_told" boolean NOT NULL,
	"work" text NOT NULL,
	"finished_mm" double precision,
	"note" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plate_maps" (
	"id" uuid PRIMARY KEY NOT NULL,
	"clock_id" uuid NOT NULL,
	"arbors" jsonb NOT NULL,
	"fixtures" jsonb NOT NULL,
	"edge" jsonb NOT NULL,
	"between_mm" double precision,
	"photo_id" uuid,
	"trueing" jsonb,
	"note" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reservations" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"stock_id" uuid NOT NULL,
	"hole_id" uuid,
	"count" integer NOT NULL,
	"taken" boolean NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stock" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"name" text NOT NULL,
	"material" text NOT NULL,
	"outside_mm" double precision,
	"inside_mm" double precision,
	"length_mm" double precision,
	"measured_mm" double precision,
	"count" integer NOT NULL,
	"low_at" integer NOT NULL,
	"drawer" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "stock_imports" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"who" text NOT NULL,
	"added" jsonb NOT NULL,
	"before" jsonb NOT NULL,
	"undone" boolean NOT NULL
);
--> statement-breakpoint
ALTER TABLE "holes" ADD COLUMN "shake_mm" double precision;--> statement-breakpoint
ALTER TABLE "holes" ADD COLUMN "lean_deg" double precision;--> statement-breakpoint
ALTER TABLE "holes" ADD COLUMN "old" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "holes" ADD COLUMN "waived" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "arbor_tests" ADD CONSTRAINT "arbor_tests_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bushings" ADD CONSTRAINT "bushings_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bushings" ADD CONSTRAINT "bushings_hole_id_holes_id_fk" FOREIGN KEY ("hole_id") REFERENCES "public"."holes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bushings" ADD CONSTRAINT "bushings_stock_id_stock_id_fk" FOREIGN KEY ("stock_id") REFERENCES "public"."stock"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pivots" ADD CONSTRAINT "pivots_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plate_maps" ADD CONSTRAINT "plate_maps_clock_id_clocks_id_fk" FOREIGN KEY ("clock_id") REFERENCES "public"."clocks"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plate_maps" ADD CONSTRAINT "plate_maps_photo_id_photos_id_fk" FOREIGN KEY ("photo_id") REFERENCES "public"."photos"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservations" ADD CONSTRAINT "reservations_job_id_jobs_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."jobs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservations" ADD CONSTRAINT "reservations_stock_id_stock_id_fk" FOREIGN KEY ("stock_id") REFERENCES "public"."stock"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reservations" ADD CONSTRAINT "reservations_hole_id_holes_id_fk" FOREIGN KEY ("hole_id") REFERENCES "public"."holes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "arbor_tests_job" ON "arbor_tests" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "bushings_job" ON "bushings" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "bushings_hole" ON "bushings" USING btree ("hole_id");--> statement-breakpoint
CREATE INDEX "pivots_job" ON "pivots" USING btree ("job_id");--> statement-breakpoint
CREATE UNIQUE INDEX "plate_maps_clock" ON "plate_maps" USING btree ("clock_id");--> statement-breakpoint
CREATE INDEX "reservations_job" ON "reservations" USING btree ("job_id");--> statement-breakpoint
CREATE INDEX "reservations_stock" ON "reservations" USING btree ("stock_id");