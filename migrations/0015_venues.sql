ALTER TABLE "published" ADD COLUMN "venue_ids" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
UPDATE "published" SET "venue_ids" = CASE WHEN "attendance" = 'online' THEN '[]'::jsonb ELSE coalesce("content" -> 'venueIds', '[]'::jsonb) END;
