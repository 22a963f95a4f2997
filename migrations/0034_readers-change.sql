ALTER TABLE "finder_change" ALTER COLUMN "listing_id" DROP NOT NULL;--> statement-breakpoint
CREATE FUNCTION "note_seen_changed"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	INSERT INTO "finder_change" ("listing_id") SELECT NULL WHERE EXISTS (SELECT 1 FROM "changed");
	RETURN NULL;
END $$;--> statement-breakpoint
DO $$
DECLARE seen text;
BEGIN
	FOREACH seen IN ARRAY ARRAY['category', 'tag', 'venue', 'organizer', 'old_slug', 'old_place', 'date_name', 'setting'] LOOP
		EXECUTE format('CREATE TRIGGER seen_added AFTER INSERT ON %I REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION note_seen_changed()', seen);
		EXECUTE format('CREATE TRIGGER seen_removed AFTER DELETE ON %I REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION note_seen_changed()', seen);
		EXECUTE format('CREATE TRIGGER seen_changed AFTER UPDATE ON %I REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION note_seen_changed()', seen);
	END LOOP;
END $$;--> statement-breakpoint
CREATE TRIGGER "seen_changed" AFTER UPDATE ON "picture" REFERENCING NEW TABLE AS "changed" FOR EACH STATEMENT EXECUTE FUNCTION "note_seen_changed"();
