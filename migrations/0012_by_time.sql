ALTER TABLE "listing" ADD COLUMN "publish_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "withdraw_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "scheduled_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "schedule_wrong" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "published" ADD COLUMN "on_top_until" integer;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "search" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "listing_publish" ON "listing" USING btree ("publish_at") WHERE publish_at is not null;--> statement-breakpoint
CREATE INDEX "listing_withdraw" ON "listing" USING btree ("withdraw_at") WHERE withdraw_at is not null;--> statement-breakpoint
UPDATE "picture" SET "search" = lower("alt" || ' ' || "credit");
