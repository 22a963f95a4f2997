ALTER TABLE "listing" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "published" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "category" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "organizer" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "tag" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "venue" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "saved_view" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "occurrence" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "old_place" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "old_address" RENAME COLUMN "address" TO "slug";
--> statement-breakpoint
ALTER TABLE "listing" RENAME CONSTRAINT "listing_address_unique" TO "listing_slug_unique";
--> statement-breakpoint
ALTER TABLE "published" RENAME CONSTRAINT "published_address_unique" TO "published_slug_unique";
--> statement-breakpoint
ALTER TABLE "category" RENAME CONSTRAINT "category_address_unique" TO "category_slug_unique";
--> statement-breakpoint
ALTER TABLE "organizer" RENAME CONSTRAINT "organizer_address_unique" TO "organizer_slug_unique";
--> statement-breakpoint
ALTER TABLE "tag" RENAME CONSTRAINT "tag_address_unique" TO "tag_slug_unique";
--> statement-breakpoint
ALTER TABLE "venue" RENAME CONSTRAINT "venue_address_unique" TO "venue_slug_unique";
--> statement-breakpoint
ALTER TABLE "saved_view" RENAME CONSTRAINT "saved_view_address_unique" TO "saved_view_slug_unique";
--> statement-breakpoint
ALTER TABLE "old_place" RENAME CONSTRAINT "old_place_kind_address_pk" TO "old_place_kind_slug_pk";
--> statement-breakpoint
ALTER TABLE "old_address" RENAME TO "old_slug";
--> statement-breakpoint
ALTER TABLE "old_slug" RENAME CONSTRAINT "old_address_pkey" TO "old_slug_pkey";
--> statement-breakpoint
ALTER TABLE "old_slug" RENAME CONSTRAINT "old_address_listing_id_listing_id_fk" TO "old_slug_listing_id_listing_id_fk";
--> statement-breakpoint
-- A row that was removed or merged away is kept whole, to be brought back: its part of the web address has the new name too.
UPDATE "place_merge" SET "record" = jsonb_set(jsonb_set("record" #- '{row,address}', '{row,slug}', "record" -> 'row' -> 'address'), '{format}', '2')
WHERE "record" -> 'row' ? 'address';
--> statement-breakpoint
UPDATE "job" SET "input" = jsonb_set("input", '{differed}', (
  SELECT jsonb_agg((d - 'address') || jsonb_build_object('slug', d -> 'address')) FROM jsonb_array_elements("input" -> 'differed') d
)) WHERE jsonb_array_length("input" -> 'differed') > 0;
