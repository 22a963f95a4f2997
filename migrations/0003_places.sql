CREATE TABLE "old_place" (
	"kind" text NOT NULL,
	"address" text NOT NULL,
	"target_id" uuid NOT NULL,
	CONSTRAINT "old_place_kind_address_pk" PRIMARY KEY("kind","address")
);
--> statement-breakpoint
CREATE TABLE "place_merge" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"from_id" uuid NOT NULL,
	"into_id" uuid NOT NULL,
	"record" jsonb NOT NULL,
	"by_name" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "profiles" jsonb DEFAULT '{"format":1,"list":[]}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "picture_id" uuid;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "category_id" uuid;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "contact_name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "contact_phone" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "contact_mail" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "notes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "organizer" ADD COLUMN "binned_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "region" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "postcode" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "country" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "area_only" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "hours" jsonb;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "features" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "picture_id" uuid;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "notes" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "capacity" integer;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "set_up_minutes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "parent_id" uuid;--> statement-breakpoint
ALTER TABLE "venue" ADD COLUMN "binned_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "organizer" ADD CONSTRAINT "organizer_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "organizer" ADD CONSTRAINT "organizer_category_id_category_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."category"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "venue" ADD CONSTRAINT "venue_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "venue" ADD CONSTRAINT "venue_parent_id_venue_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."venue"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "venue_parent" ON "venue" USING btree ("parent_id");