ALTER TABLE "holes" ADD COLUMN "old_hole_mm" double precision;--> statement-breakpoint
ALTER TABLE "holes" ADD COLUMN "sink_mm" double precision;--> statement-breakpoint
-- What was met in a hole is said once, of the hole.
UPDATE "holes" SET "old" = b."old" FROM "bushings" b WHERE b."hole_id" = "holes"."id" AND b."old" <> 'none';--> statement-breakpoint
ALTER TABLE "bushings" DROP COLUMN "old";