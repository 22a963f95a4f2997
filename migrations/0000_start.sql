CREATE TABLE "account_credential" (
	"id" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"user_id" text NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "audit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" text,
	"by_name" text NOT NULL,
	"what" text NOT NULL,
	"kind" text NOT NULL,
	"subject_id" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "category" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"shape" text NOT NULL,
	"ink" text NOT NULL,
	"parent_id" uuid,
	"position" integer DEFAULT 0 NOT NULL,
	"fallback" boolean DEFAULT false NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "category_address_unique" UNIQUE("address")
);
--> statement-breakpoint
CREATE TABLE "invitation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token_hash" text NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"invited_by" text,
	"expires_at" timestamp with time zone NOT NULL,
	"accepted_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "invitation_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "listing_link" (
	"listing_id" uuid NOT NULL,
	"copy" text NOT NULL,
	"position" integer NOT NULL,
	"category_id" uuid,
	"venue_id" uuid,
	"organizer_id" uuid,
	"picture_id" uuid
);
--> statement-breakpoint
CREATE TABLE "listing" (
	"id" uuid PRIMARY KEY NOT NULL,
	"address" text NOT NULL,
	"stage" text DEFAULT 'draft' NOT NULL,
	"title" text NOT NULL,
	"working" jsonb NOT NULL,
	"owner_id" text,
	"edited" boolean DEFAULT false NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "listing_address_unique" UNIQUE("address")
);
--> statement-breakpoint
CREATE TABLE "occurrence" (
	"listing_id" uuid NOT NULL,
	"original" text NOT NULL,
	"address" text NOT NULL,
	"start_day" integer NOT NULL,
	"start_minute" integer,
	"end_day" integer,
	"end_minute" integer,
	"last_day" integer NOT NULL,
	"starts_at" timestamp with time zone NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"standing" text,
	"note" text NOT NULL,
	"moved" boolean NOT NULL,
	"public" boolean NOT NULL,
	CONSTRAINT "occurrence_listing_id_original_pk" PRIMARY KEY("listing_id","original")
);
--> statement-breakpoint
CREATE TABLE "old_address" (
	"address" text PRIMARY KEY NOT NULL,
	"listing_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "organizer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"text" text DEFAULT '' NOT NULL,
	"phone" text DEFAULT '' NOT NULL,
	"mail" text DEFAULT '' NOT NULL,
	"website" text DEFAULT '' NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "organizer_address_unique" UNIQUE("address")
);
--> statement-breakpoint
CREATE TABLE "outbox" (
	"id" uuid PRIMARY KEY NOT NULL,
	"to" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"sent_at" timestamp with time zone,
	"tries" integer DEFAULT 0 NOT NULL,
	"failure" text
);
--> statement-breakpoint
CREATE TABLE "picture" (
	"id" uuid PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"alt" text DEFAULT '' NOT NULL,
	"credit" text DEFAULT '' NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"sizes" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "picture_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "picture_file" (
	"picture_id" uuid NOT NULL,
	"width" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "picture_file_picture_id_width_pk" PRIMARY KEY("picture_id","width")
);
--> statement-breakpoint
CREATE TABLE "published" (
	"listing_id" uuid PRIMARY KEY NOT NULL,
	"address" text NOT NULL,
	"visibility" text NOT NULL,
	"title" text NOT NULL,
	"short_title" text NOT NULL,
	"summary" text NOT NULL,
	"standing" text NOT NULL,
	"attendance" text NOT NULL,
	"free" boolean NOT NULL,
	"cost" jsonb NOT NULL,
	"contact" jsonb NOT NULL,
	"headline" boolean NOT NULL,
	"category_id" uuid NOT NULL,
	"venue_id" uuid,
	"picture_id" uuid,
	"search" text NOT NULL,
	"content" jsonb NOT NULL,
	"sequence" integer NOT NULL,
	"published_at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	CONSTRAINT "published_address_unique" UNIQUE("address")
);
--> statement-breakpoint
CREATE TABLE "rate_limit" (
	"id" text PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"count" integer NOT NULL,
	"last_request" bigint NOT NULL,
	CONSTRAINT "rate_limit_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "account_session" (
	"id" text PRIMARY KEY NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"token" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"user_id" text NOT NULL,
	CONSTRAINT "account_session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "setting" (
	"key" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "submission" (
	"id" uuid PRIMARY KEY NOT NULL,
	"listing_id" uuid NOT NULL,
	"token_hash" text,
	"state" text NOT NULL,
	"sender_name" text NOT NULL,
	"sender_mail" text NOT NULL,
	"message" text DEFAULT '' NOT NULL,
	"said" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"decided_by" text,
	"decided_at" timestamp with time zone,
	"sent_at" timestamp with time zone NOT NULL,
	"changes" integer DEFAULT 0 NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "submission_listing_id_unique" UNIQUE("listing_id"),
	CONSTRAINT "submission_token_hash_unique" UNIQUE("token_hash")
);
--> statement-breakpoint
CREATE TABLE "account_user" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"role" text DEFAULT 'contributor' NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "account_user_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "venue" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"street" text DEFAULT '' NOT NULL,
	"town" text DEFAULT '' NOT NULL,
	"island" text DEFAULT '' NOT NULL,
	"lat" double precision,
	"lng" double precision,
	"access" text DEFAULT '' NOT NULL,
	"phone" text DEFAULT '' NOT NULL,
	"mail" text DEFAULT '' NOT NULL,
	"website" text DEFAULT '' NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "venue_address_unique" UNIQUE("address")
);
--> statement-breakpoint
CREATE TABLE "account_verification" (
	"id" text PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "version" (
	"id" uuid PRIMARY KEY NOT NULL,
	"listing_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"content" jsonb NOT NULL,
	"what" text NOT NULL,
	"by_name" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "account_credential" ADD CONSTRAINT "account_credential_user_id_account_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."account_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "category" ADD CONSTRAINT "category_parent_id_category_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."category"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_invited_by_account_user_id_fk" FOREIGN KEY ("invited_by") REFERENCES "public"."account_user"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing_link" ADD CONSTRAINT "listing_link_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing_link" ADD CONSTRAINT "listing_link_category_id_category_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."category"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing_link" ADD CONSTRAINT "listing_link_venue_id_venue_id_fk" FOREIGN KEY ("venue_id") REFERENCES "public"."venue"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing_link" ADD CONSTRAINT "listing_link_organizer_id_organizer_id_fk" FOREIGN KEY ("organizer_id") REFERENCES "public"."organizer"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing_link" ADD CONSTRAINT "listing_link_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "listing" ADD CONSTRAINT "listing_owner_id_account_user_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."account_user"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "occurrence" ADD CONSTRAINT "occurrence_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "old_address" ADD CONSTRAINT "old_address_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture_file" ADD CONSTRAINT "picture_file_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_category_id_category_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."category"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_venue_id_venue_id_fk" FOREIGN KEY ("venue_id") REFERENCES "public"."venue"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "published" ADD CONSTRAINT "published_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "account_session" ADD CONSTRAINT "account_session_user_id_account_user_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."account_user"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "submission" ADD CONSTRAINT "submission_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "version" ADD CONSTRAINT "version_listing_id_listing_id_fk" FOREIGN KEY ("listing_id") REFERENCES "public"."listing"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "credential_user" ON "account_credential" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "audit_subject" ON "audit" USING btree ("subject_id");--> statement-breakpoint
CREATE UNIQUE INDEX "one_fallback" ON "category" USING btree ("fallback") WHERE fallback;--> statement-breakpoint
CREATE INDEX "link_listing" ON "listing_link" USING btree ("listing_id","copy");--> statement-breakpoint
CREATE INDEX "link_category" ON "listing_link" USING btree ("category_id","copy");--> statement-breakpoint
CREATE INDEX "link_venue" ON "listing_link" USING btree ("venue_id","copy");--> statement-breakpoint
CREATE INDEX "link_organizer" ON "listing_link" USING btree ("organizer_id","copy");--> statement-breakpoint
CREATE INDEX "link_picture" ON "listing_link" USING btree ("picture_id");--> statement-breakpoint
CREATE INDEX "listing_stage" ON "listing" USING btree ("stage","changed_at");--> statement-breakpoint
CREATE INDEX "listing_owner" ON "listing" USING btree ("owner_id");--> statement-breakpoint
CREATE INDEX "occurrence_public" ON "occurrence" USING btree ("start_day","last_day") WHERE public;--> statement-breakpoint
CREATE INDEX "occurrence_several_days" ON "occurrence" USING btree ("last_day") WHERE public and last_day > start_day;--> statement-breakpoint
CREATE INDEX "published_category" ON "published" USING btree ("category_id");--> statement-breakpoint
CREATE INDEX "published_venue" ON "published" USING btree ("venue_id");--> statement-breakpoint
CREATE INDEX "session_user" ON "account_session" USING btree ("user_id");--> statement-breakpoint
CREATE INDEX "submission_state" ON "submission" USING btree ("state","sent_at");--> statement-breakpoint
CREATE INDEX "verification_identifier" ON "account_verification" USING btree ("identifier");--> statement-breakpoint
CREATE INDEX "version_listing" ON "version" USING btree ("listing_id","revision");