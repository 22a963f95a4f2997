ALTER TABLE "category" ADD COLUMN "tinted" boolean DEFAULT true NOT NULL;--> statement-breakpoint
-- What stood under another had an ink of its own: it keeps it.
UPDATE "category" SET "tinted" = false WHERE "parent_id" IS NOT NULL;
