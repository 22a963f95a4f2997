-- Contents of format 4 become format 5: what a page calls its readers to do.
UPDATE "listing" SET "working" = "working" || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb WHERE "working"->>'format' = '4';--> statement-breakpoint
UPDATE "published" SET "content" = "content" || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb WHERE "content"->>'format' = '4';--> statement-breakpoint
UPDATE "version" SET "content" = "content" || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb WHERE "content"->>'format' = '4';--> statement-breakpoint
UPDATE "import_source" SET "content" = "content" || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb WHERE "content"->>'format' = '4';--> statement-breakpoint
UPDATE "edit" SET "content" = "content" || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb WHERE "content"->>'format' = '4';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{content}', ("before"->'content') || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb) WHERE "before"->'content'->>'format' = '4';--> statement-breakpoint
UPDATE "import_item" SET "before" = jsonb_set("before", '{source}', ("before"->'source') || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb) WHERE "before"->'source'->>'format' = '4';--> statement-breakpoint
UPDATE "bulk_item" SET "before" = jsonb_set("before", '{working}', ("before"->'working') || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb) WHERE "before"->'working'->>'format' = '4';--> statement-breakpoint
UPDATE "bulk_item" SET "before" = jsonb_set("before", '{published}', ("before"->'published') || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb) WHERE "before"->'published'->>'format' = '4';--> statement-breakpoint
UPDATE "submission" SET "proposal" = jsonb_set("proposal", '{content}', ("proposal"->'content') || '{"format":5,"callAddress":"","callKind":"more"}'::jsonb) WHERE "proposal"->'content'->>'format' = '4';
