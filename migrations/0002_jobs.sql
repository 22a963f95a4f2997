CREATE TABLE "import_columns" (
	"headers" text PRIMARY KEY NOT NULL,
	"columns" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "import_row" (
	"batch_id" uuid NOT NULL,
	"n" integer NOT NULL,
	"uid" text NOT NULL,
	"action" text DEFAULT '' NOT NULL,
	"chosen" boolean DEFAULT true NOT NULL,
	"item" jsonb NOT NULL,
	CONSTRAINT "import_row_batch_id_n_pk" PRIMARY KEY("batch_id","n")
);
--> statement-breakpoint
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
ALTER TABLE "import_batch" ADD COLUMN "kind" text DEFAULT 'ical' NOT NULL;--> statement-breakpoint
ALTER TABLE "import_batch" ADD COLUMN "summary" jsonb;--> statement-breakpoint
ALTER TABLE "import_batch" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "listing" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "occurrence" ADD COLUMN "venue_id" uuid;--> statement-breakpoint
ALTER TABLE "published" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "import_row" ADD CONSTRAINT "import_row_batch_id_import_batch_id_fk" FOREIGN KEY ("batch_id") REFERENCES "public"."import_batch"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "import_row_action" ON "import_row" USING btree ("batch_id","action","n");--> statement-breakpoint
CREATE INDEX "job_state" ON "job" USING btree ("state");--> statement-breakpoint
CREATE INDEX "job_hidden" ON "job" USING btree ("id") WHERE hidden;--> statement-breakpoint
ALTER TABLE "import_batch" ADD CONSTRAINT "import_batch_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing" ADD CONSTRAINT "listing_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE set null ON UPDATE no action;