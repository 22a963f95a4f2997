ALTER TABLE "picture" DROP COLUMN "sizes";--> statement-breakpoint
ALTER TABLE "picture_file" DROP COLUMN "picture_id";