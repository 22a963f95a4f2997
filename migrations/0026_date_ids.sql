CREATE TABLE "date_name" (
	"listing_id" uuid NOT NULL,
	"date_id" text NOT NULL,
	"original" text NOT NULL,
	"former" boolean NOT NULL,
	CONSTRAINT "date_name_listing_id_date_id_original_pk" PRIMARY KEY("listing_id","date_id","original")
);
--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "first_published_at" timestamp with time zone;--> statement-breakpoint
UPDATE "listing" SET "first_published_at" = coalesce(
	(SELECT min(v."at") FROM "version" v WHERE v."listing_id" = "listing"."id" AND v."what" LIKE '%published'),
	(SELECT p."published_at" FROM "published" p WHERE p."listing_id" = "listing"."id"));
--> statement-breakpoint
ALTER TABLE "occurrence" ADD COLUMN "date_id" text;
--> statement-breakpoint
UPDATE "occurrence" SET "date_id" = "original";
--> statement-breakpoint
ALTER TABLE "occurrence" ALTER COLUMN "date_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "date_name" ADD CONSTRAINT "date_name_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;