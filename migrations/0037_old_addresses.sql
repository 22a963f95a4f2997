CREATE TABLE "old_address" (
	"from" text PRIMARY KEY NOT NULL,
	"to" text NOT NULL,
	"hits" integer DEFAULT 0 NOT NULL,
	"last_at" timestamp with time zone
);
