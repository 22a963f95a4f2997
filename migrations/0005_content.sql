-- Contents of format 1 become format 2: how many are expected, tags, more pictures, how long it stays on top.
UPDATE "listing" SET "working" = "working" || '{"format":2,"expected":null,"tagIds":[],"galleryIds":[],"onTopUntil":null}'::jsonb WHERE "working"->>'format' = '1';--> statement-breakpoint
UPDATE "published" SET "content" = "content" || '{"format":2,"expected":null,"tagIds":[],"galleryIds":[],"onTopUntil":null}'::jsonb WHERE "content"->>'format' = '1';--> statement-breakpoint
UPDATE "version" SET "content" = "content" || '{"format":2,"expected":null,"tagIds":[],"galleryIds":[],"onTopUntil":null}'::jsonb WHERE "content"->>'format' = '1';--> statement-breakpoint
UPDATE "import_source" SET "content" = "content" || '{"format":2,"expected":null,"tagIds":[],"galleryIds":[],"onTopUntil":null}'::jsonb WHERE "content"->>'format' = '1';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{content}', ("before"->'content') || '{"format":2,"expected":null,"tagIds":[],"galleryIds":[],"onTopUntil":null}'::jsonb) WHERE "before" IS NOT NULL AND "before"->'content'->>'format' = '1';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{source}', ("before"->'source') || '{"format":2,"expected":null,"tagIds":[],"galleryIds":[],"onTopUntil":null}'::jsonb) WHERE "before" IS NOT NULL AND "before"->'source'->>'format' = '1';
