CREATE TABLE "rate_bound" (
	"key" text PRIMARY KEY NOT NULL,
	"count" integer NOT NULL,
	"ends" bigint NOT NULL
);
