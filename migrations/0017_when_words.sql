-- Contents of format 2 become format 3: words for when that are still open.
UPDATE "listing" SET "working" = "working" || '{"format":3,"whenWords":""}'::jsonb WHERE "working"->>'format' = '2';--> statement-breakpoint
UPDATE "published" SET "content" = "content" || '{"format":3,"whenWords":""}'::jsonb WHERE "content"->>'format' = '2';--> statement-breakpoint
UPDATE "version" SET "content" = "content" || '{"format":3,"whenWords":""}'::jsonb WHERE "content"->>'format' = '2';--> statement-breakpoint
UPDATE "import_source" SET "content" = "content" || '{"format":3,"whenWords":""}'::jsonb WHERE "content"->>'format' = '2';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{content}', ("before"->'content') || '{"format":3,"whenWords":""}'::jsonb) WHERE "before" IS NOT NULL AND "before"->'content'->>'format' = '2';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{source}', ("before"->'source') || '{"format":3,"whenWords":""}'::jsonb) WHERE "before" IS NOT NULL AND "before"->'source'->>'format' = '2';--> statement-breakpoint
UPDATE "edit" SET "content" = "content" || '{"format":3,"whenWords":""}'::jsonb WHERE "content"->>'format' = '2';--> statement-breakpoint
UPDATE "bulk_item" SET "before" = jsonb_set("before", '{working}', ("before"->'working') || '{"format":3,"whenWords":""}'::jsonb) WHERE "before"->'working'->>'format' = '2';--> statement-breakpoint
UPDATE "bulk_item" SET "before" = jsonb_set("before", '{published}', ("before"->'published') || '{"format":3,"whenWords":""}'::jsonb) WHERE "before"->'published'->>'format' = '2';--> statement-breakpoint
UPDATE "submission" SET "proposal" = jsonb_set("proposal", '{content}', ("proposal"->'content') || '{"format":3,"whenWords":""}'::jsonb) WHERE "proposal"->'content'->>'format' = '2';
