CREATE TABLE "edit" (
	"user_id" text NOT NULL,
	"key" text NOT NULL,
	"listing_id" uuid,
	"content" jsonb,
	"revision" integer NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "edit_user_id_key_pk" PRIMARY KEY("user_id","key")
);
--> statement-breakpoint
ALTER TABLE "edit" ADD CONSTRAINT "edit_user_id_account_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."account_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edit" ADD CONSTRAINT "edit_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;