CREATE TABLE "job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"state" text NOT NULL,
	"hidden" boolean DEFAULT false NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"total" integer DEFAULT 0 NOT NULL,
	"said" text DEFAULT '' NOT NULL,
	"input" jsonb NOT NULL,
	"by_id" text,
	"by_name" text NOT NULL,
	"started_at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "occurrence" ADD COLUMN "venue_id" uuid;--> statement-breakpoint
ALTER TABLE "published" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "listing" ADD CONSTRAINT "listing_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE set null ON UPDATE no action;