CREATE TABLE "address_file" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"addresses" integer NOT NULL,
	"streets" integer NOT NULL,
	"left_out" integer NOT NULL,
	"credit" text NOT NULL,
	"ready" boolean DEFAULT false NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "address_street" (
	"file_id" uuid NOT NULL,
	"n" integer NOT NULL,
	"name" text NOT NULL,
	"town" text NOT NULL,
	"region" text NOT NULL,
	"postcodes" text[] NOT NULL,
	"lat" double precision NOT NULL,
	"lng" double precision NOT NULL,
	"words" text[] NOT NULL,
	"houses" jsonb NOT NULL,
	CONSTRAINT "address_street_file_id_n_pk" PRIMARY KEY("file_id","n")
);
--> statement-breakpoint
ALTER TABLE "address_street" ADD CONSTRAINT "address_street_file_id_address_file_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."address_file"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "address_street_words" ON "address_street" USING gin ("words") WITH (fastupdate=false);