CREATE TABLE "bulk_item" (
	"run_id" uuid NOT NULL,
	"n" integer NOT NULL,
	"listing_id" uuid NOT NULL,
	"state" text DEFAULT '' NOT NULL,
	"reason" text DEFAULT '' NOT NULL,
	"before" jsonb,
	"revision" integer,
	CONSTRAINT "bulk_item_run_id_n_pk" PRIMARY KEY("run_id","n")
);
--> statement-breakpoint
CREATE TABLE "bulk_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"action" jsonb NOT NULL,
	"job_id" uuid NOT NULL,
	"by_id" text,
	"by_name" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "saved_view" (
	"id" uuid PRIMARY KEY NOT NULL,
	"address" text NOT NULL,
	"name" text NOT NULL,
	"query" text NOT NULL,
	"owner_id" text,
	CONSTRAINT "saved_view_address_unique" UNIQUE("address")
);
--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "next_day" integer;--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "next_minute" integer;--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "next_last" integer;--> statement-breakpoint
ALTER TABLE "bulk_item" ADD CONSTRAINT "bulk_item_run_id_bulk_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."bulk_run"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_view" ADD CONSTRAINT "saved_view_owner_id_account_user_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."account_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_item_state" ON "bulk_item" USING btree ("run_id","state","n");--> statement-breakpoint
CREATE INDEX "listing_next" ON "listing" USING btree ("next_day");--> statement-breakpoint
UPDATE "listing" SET "next_day" = -1, "next_last" = -1 WHERE EXISTS (SELECT 1 FROM "occurrence" o WHERE o."listing_id" = "listing"."id");
