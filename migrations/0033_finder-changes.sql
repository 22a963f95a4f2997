CREATE TABLE "finder_change" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"listing_id" uuid NOT NULL,
	"transaction" "xid8" DEFAULT pg_current_xact_id() NOT NULL,
	"at" timestamp with time zone DEFAULT clock_timestamp() NOT NULL
);
--> statement-breakpoint
CREATE INDEX "finder_change_transaction" ON "finder_change" USING btree ("transaction");--> statement-breakpoint
CREATE FUNCTION "note_dates_changed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO "finder_change" ("listing_id") SELECT DISTINCT "listing_id" FROM "changed" WHERE "public";
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "note_listings_changed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO "finder_change" ("listing_id") SELECT DISTINCT "listing_id" FROM "changed";
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "note_links_changed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO "finder_change" ("listing_id") SELECT DISTINCT "listing_id" FROM "changed" WHERE "copy" = 'published';
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "note_job_shown"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO "finder_change" ("listing_id") SELECT "listing_id" FROM "published" WHERE "job_id" = NEW."id";
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "dates_added" AFTER INSERT ON "occurrence" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_dates_changed"();--> statement-breakpoint
CREATE TRIGGER "dates_removed" AFTER DELETE ON "occurrence" REFERENCING OLD TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_dates_changed"();--> statement-breakpoint
CREATE TRIGGER "dates_changed" AFTER UPDATE ON "occurrence" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_listings_changed"();--> statement-breakpoint
CREATE TRIGGER "published_added" AFTER INSERT ON "published" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_listings_changed"();--> statement-breakpoint
CREATE TRIGGER "published_removed" AFTER DELETE ON "published" REFERENCING OLD TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_listings_changed"();--> statement-breakpoint
CREATE TRIGGER "published_changed" AFTER UPDATE ON "published" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_listings_changed"();--> statement-breakpoint
CREATE TRIGGER "links_added" AFTER INSERT ON "listing_link" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_links_changed"();--> statement-breakpoint
CREATE TRIGGER "links_removed" AFTER DELETE ON "listing_link" REFERENCING OLD TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_links_changed"();--> statement-breakpoint
CREATE TRIGGER "links_changed" AFTER UPDATE ON "listing_link" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_links_changed"();--> statement-breakpoint
CREATE TRIGGER "job_shown" AFTER UPDATE OF "hidden" ON "job" FOR EACH ROW WHEN (OLD."hidden" IS DISTINCT FROM NEW."hidden") EXECUTE FUNCTION "note_job_shown"();
