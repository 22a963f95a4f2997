CREATE TABLE "listing_copy" (
	"listing_id" uuid PRIMARY KEY NOT NULL,
	"from_title" text NOT NULL,
	"unlooked" text[] NOT NULL
);
--> statement-breakpoint
CREATE TABLE "proof_note" (
	"listing_id" uuid NOT NULL,
	"key" text NOT NULL,
	"kind" text NOT NULL,
	"severity" text NOT NULL,
	"field" text NOT NULL,
	"sentence" text NOT NULL,
	"mend" jsonb,
	CONSTRAINT "proof_note_listing_id_key_pk" PRIMARY KEY("listing_id","key")
);
--> statement-breakpoint
CREATE TABLE "proof_state" (
	"listing_id" uuid PRIMARY KEY NOT NULL,
	"revision" integer NOT NULL,
	"day" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "proof_waiver" (
	"listing_id" uuid NOT NULL,
	"key" text NOT NULL,
	"reason" text NOT NULL,
	"by_name" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "proof_waiver_listing_id_key_pk" PRIMARY KEY("listing_id","key")
);
--> statement-breakpoint
ALTER TABLE "listing_copy" ADD CONSTRAINT "listing_copy_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "proof_note" ADD CONSTRAINT "proof_note_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "proof_state" ADD CONSTRAINT "proof_state_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "proof_waiver" ADD CONSTRAINT "proof_waiver_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "proof_note_kind" ON "proof_note" USING btree ("kind","listing_id");