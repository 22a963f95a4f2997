CREATE TABLE "picture_source" (
	"hash" text PRIMARY KEY NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"detail" double precision DEFAULT 1 NOT NULL,
	"bytes" "bytea" NOT NULL,
	"unused_since" timestamp with time zone
);
--> statement-breakpoint
-- What there is already: the widest file of each picture becomes what its other files are made from, when they are asked for.
INSERT INTO "picture_source" ("hash", "width", "height", "bytes")
SELECT p."hash", p."width", p."height", f."bytes" FROM "picture" p
JOIN LATERAL (SELECT "bytes" FROM "picture_file" WHERE "picture_id" = p."id" ORDER BY "width" DESC LIMIT 1) f ON true;--> statement-breakpoint
DELETE FROM "picture_file";--> statement-breakpoint
-- Galleries and pictures in texts are uses too.
INSERT INTO "listing_link" ("listing_id", "copy", "position", "picture_id")
SELECT DISTINCT ON (c."id", c."copy", p."id") c."id", c."copy", 100, p."id"
FROM (SELECT "id", 'working' AS "copy", "working" AS "content" FROM "listing" UNION ALL SELECT "listing_id", 'published', "content" FROM "published") c,
  LATERAL regexp_matches(c."content" ->> 'text', '/picture/([0-9a-f]{8}-[0-9a-f-]{27})', 'g') m
JOIN "picture" p ON p."id"::text = m[1]
WHERE NOT EXISTS (SELECT 1 FROM "listing_link" l WHERE l."listing_id" = c."id" AND l."copy" = c."copy" AND l."picture_id" = p."id");
--> statement-breakpoint
ALTER TABLE "picture" DROP CONSTRAINT "picture_hash_unique";--> statement-breakpoint
ALTER TABLE "picture_file" DROP CONSTRAINT "picture_file_picture_id_picture_id_fk";
--> statement-breakpoint
ALTER TABLE "picture_file" DROP CONSTRAINT "picture_file_picture_id_width_pk";--> statement-breakpoint
ALTER TABLE "category" ADD COLUMN "icon" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "category" ADD COLUMN "picture_id" uuid;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "detail" double precision DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "focus_x" double precision DEFAULT 0.5 NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "focus_y" double precision DEFAULT 0.5 NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "crops" jsonb DEFAULT '{"format":1}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "owner_id" text;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "binned_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "picture_file" ADD COLUMN "hash" text NOT NULL;--> statement-breakpoint
ALTER TABLE "picture_file" ADD COLUMN "box" text NOT NULL;--> statement-breakpoint
ALTER TABLE "picture_file" ADD COLUMN "format" text NOT NULL;--> statement-breakpoint
ALTER TABLE "picture_file" ADD CONSTRAINT "picture_file_hash_box_width_format_pk" PRIMARY KEY("hash","box","width","format");--> statement-breakpoint
ALTER TABLE "category" ADD CONSTRAINT "category_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_hash_picture_source_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."picture_source"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_owner_id_account_user_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."account_user"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture_file" ADD CONSTRAINT "picture_file_hash_picture_source_hash_fk" FOREIGN KEY ("hash") REFERENCES "public"."picture_source"("hash") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "picture_hash" ON "picture" USING btree ("hash");--> statement-breakpoint
CREATE INDEX "picture_created" ON "picture" USING btree ("created_at");