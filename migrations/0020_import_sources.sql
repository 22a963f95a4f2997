-- What rows of a file are known by holds within one source.
ALTER TABLE "import_source" ADD COLUMN "source" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "import_source" ADD COLUMN "hash" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "import_source" DROP CONSTRAINT "import_source_pkey";--> statement-breakpoint
ALTER TABLE "import_source" ADD CONSTRAINT "import_source_source_uid_pk" PRIMARY KEY("source","uid");--> statement-breakpoint
ALTER TABLE "import_batch" ADD COLUMN "source" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "import_row" ADD COLUMN "answer" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "import_source_uid" ON "import_source" USING btree ("uid");
