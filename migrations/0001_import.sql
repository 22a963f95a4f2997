CREATE TABLE "import_batch" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"state" text NOT NULL,
	"file" text NOT NULL,
	"encoding" text NOT NULL,
	"options" jsonb NOT NULL,
	"by_name" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"made" integer DEFAULT 0 NOT NULL,
	"changed" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "import_item" (
	"batch_id" uuid NOT NULL,
	"uid" text NOT NULL,
	"listing_id" uuid NOT NULL,
	"before" jsonb,
	"revision" integer NOT NULL,
	"published" boolean NOT NULL,
	CONSTRAINT "import_item_batch_id_uid_pk" PRIMARY KEY("batch_id","uid")
);
--> statement-breakpoint
CREATE TABLE "import_match" (
	"kind" text NOT NULL,
	"said" text NOT NULL,
	"target" uuid,
	CONSTRAINT "import_match_kind_said_pk" PRIMARY KEY("kind","said")
);
--> statement-breakpoint
CREATE TABLE "import_source" (
	"uid" text PRIMARY KEY NOT NULL,
	"listing_id" uuid NOT NULL,
	"sequence" integer NOT NULL,
	"content" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "import_item" ADD CONSTRAINT "import_item_batch_id_import_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."import_batch"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_source" ADD CONSTRAINT "import_source_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "import_source_listing" ON "import_source" USING btree ("listing_id");