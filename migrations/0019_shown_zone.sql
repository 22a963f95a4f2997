ALTER TABLE "published" ADD COLUMN "zone" text DEFAULT '' NOT NULL;--> statement-breakpoint
-- Where there is a place, its time is shown; every date is made anew by the clock that is shown, as soon as the server starts.
UPDATE "published" SET "zone" = coalesce("content"->'recurrence'->>'zone', '') WHERE "attendance" <> 'online' AND jsonb_array_length("venue_ids") > 0;--> statement-breakpoint
DELETE FROM "setting" WHERE "key" = 'horizon';
