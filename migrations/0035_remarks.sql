CREATE TABLE "remark" (
	"id" uuid PRIMARY KEY NOT NULL,
	"listing_id" uuid NOT NULL,
	"date" text DEFAULT '' NOT NULL,
	"message" text NOT NULL,
	"sender_name" text DEFAULT '' NOT NULL,
	"sender_mail" text DEFAULT '' NOT NULL,
	"sent_at" timestamp with time zone NOT NULL,
	"settled_at" timestamp with time zone,
	"settled_by" text
);
--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "remark_open" ON "remark" USING btree ("settled_at","sent_at");--> statement-breakpoint
CREATE INDEX "remark_listing" ON "remark" USING btree ("listing_id");