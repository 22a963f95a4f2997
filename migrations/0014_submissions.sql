ALTER TABLE "submission" ADD COLUMN "sender_phone" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "submission" ADD COLUMN "sent_revision" integer;--> statement-breakpoint
ALTER TABLE "submission" ADD COLUMN "proposal" jsonb;--> statement-breakpoint
ALTER TABLE "submission" ADD COLUMN "into_id" uuid;--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_into_id_listing_id_fk" FOREIGN KEY ("into_id") REFERENCES "public"."listing"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
-- What was published past Intake before a submission followed its listing: its receipt must not stay open.
UPDATE "submission" s SET "state" = 'published', "decided_by" = coalesce("decided_by", 'The editors'), "decided_at" = coalesce("decided_at", p."published_at") FROM "published" p WHERE p."listing_id" = s."listing_id" AND s."token_hash" IS NOT NULL AND s."state" IN ('waiting', 'returned');--> statement-breakpoint
UPDATE "submission" s SET "state" = 'declined', "decided_by" = coalesce("decided_by", 'The editors'), "decided_at" = coalesce("decided_at", l."changed_at") FROM "listing" l WHERE l."id" = s."listing_id" AND l."stage" IN ('withdrawn', 'binned') AND s."state" IN ('waiting', 'returned');--> statement-breakpoint
UPDATE "submission" s SET "sent_revision" = (SELECT max(v."revision") FROM "version" v WHERE v."listing_id" = s."listing_id" AND v."by_name" = s."sender_name");
