-- Days until which published listings stay on top, from what was published before the column was.
UPDATE "published" SET "on_top_until" = ("content" ->> 'onTopUntil')::date - DATE '1970-01-01' WHERE "on_top_until" IS NULL AND "content" ->> 'onTopUntil' IS NOT NULL;
