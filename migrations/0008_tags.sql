CREATE TABLE "tag" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"folded" text NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "tag_address_unique" UNIQUE("address"),
	CONSTRAINT "tag_folded_unique" UNIQUE("folded")
);
--> statement-breakpoint
ALTER TABLE "listing_link" ADD COLUMN "tag_id" uuid;--> statement-breakpoint
ALTER TABLE "listing_link" ADD CONSTRAINT "listing_link_tag_id_tag_id_fk" FOREIGN KEY ("tag_id") REFERENCES "public"."tag"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "link_tag" ON "listing_link" USING btree ("tag_id","copy");