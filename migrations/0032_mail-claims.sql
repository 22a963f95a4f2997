ALTER TABLE "outbox" ADD COLUMN "claimed_until" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "next_try_at" timestamp with time zone;