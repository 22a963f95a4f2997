-- Stored contents say what the field says: the status of an event, the parts of a recurrence, its left-out dates, holidays. Contents become format 4,
-- recurrences format 3. A key is known by the colon behind its closing quote, which no text within a value can have.
CREATE FUNCTION renamed_keys(c jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE WHEN jsonb_typeof(r->'recurrence') = 'object' THEN jsonb_set(r, '{recurrence,format}', '3') ELSE r END
  FROM (SELECT replace(replace(replace(replace(c::text, '"stretches": ', '"parts": '), '"leftOut": ', '"exdates": '),
    '"standing": ', '"eventStatus": '), '"standingNote": ', '"eventStatusNote": ')::jsonb AS r) x
$$;--> statement-breakpoint
CREATE FUNCTION content_of_format_4(c jsonb) RETURNS jsonb LANGUAGE sql IMMUTABLE AS $$
  SELECT CASE WHEN jsonb_typeof(c) = 'object' THEN renamed_keys(c) || '{"format": 4}' ELSE c END
$$;--> statement-breakpoint
UPDATE "listing" SET "working" = content_of_format_4("working") WHERE "working" IS NOT NULL;--> statement-breakpoint
UPDATE "published" SET "content" = content_of_format_4("content") WHERE "content" IS NOT NULL;--> statement-breakpoint
UPDATE "version" SET "content" = content_of_format_4("content") WHERE "content" IS NOT NULL;--> statement-breakpoint
UPDATE "import_source" SET "content" = content_of_format_4("content") WHERE "content" IS NOT NULL;--> statement-breakpoint
UPDATE "edit" SET "content" = content_of_format_4("content") WHERE "content" IS NOT NULL;--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{content}', content_of_format_4("before"->'content')) WHERE jsonb_typeof("before"->'content') = 'object';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{source}', content_of_format_4("before"->'source')) WHERE jsonb_typeof("before"->'source') = 'object';--> statement-breakpoint
UPDATE "bulk_item" SET "before" = jsonb_set("before", '{working}', content_of_format_4("before"->'working')) WHERE jsonb_typeof("before"->'working') = 'object';--> statement-breakpoint
UPDATE "bulk_item" SET "before" = jsonb_set("before", '{published}', content_of_format_4("before"->'published')) WHERE jsonb_typeof("before"->'published') = 'object';--> statement-breakpoint
UPDATE "submission" SET "proposal" = jsonb_set("proposal", '{content}', content_of_format_4("proposal"->'content')) WHERE jsonb_typeof("proposal"->'content') = 'object';--> statement-breakpoint
UPDATE "import_row" SET "item" = jsonb_set("item", '{content}', renamed_keys("item"->'content')) || '{"format": 2}';--> statement-breakpoint
DROP FUNCTION content_of_format_4;--> statement-breakpoint
DROP FUNCTION renamed_keys;--> statement-breakpoint
UPDATE "import_columns" SET "columns" = replace("columns"::text, '"standing"', '"eventStatus"')::jsonb;--> statement-breakpoint
UPDATE "import_batch" SET "options" = replace("options"::text, '"standing"', '"eventStatus"')::jsonb;--> statement-breakpoint
UPDATE "setting" SET "value" = ("value" - 'redLetter') || jsonb_build_object('format', 2, 'holidays', coalesce("value"->'redLetter', '[]'::jsonb)) WHERE "key" = 'site';--> statement-breakpoint
ALTER TABLE "published" RENAME COLUMN "standing" TO "event_status";--> statement-breakpoint
ALTER TABLE "occurrence" RENAME COLUMN "standing" TO "event_status";--> statement-breakpoint
-- What was found of listings is looked for anew.
DELETE FROM "proof_note";--> statement-breakpoint
DELETE FROM "proof_state";
