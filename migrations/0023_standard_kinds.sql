-- Validation, imports and jobs under the names that code has for them.
ALTER TABLE "proof_note" RENAME TO "validation_note";--> statement-breakpoint
ALTER TABLE "proof_state" RENAME TO "validation_state";--> statement-breakpoint
ALTER TABLE "proof_waiver" RENAME TO "validation_waiver";--> statement-breakpoint
ALTER TABLE "validation_note" RENAME COLUMN "mend" TO "quick_fix";--> statement-breakpoint
ALTER TABLE "validation_note" RENAME CONSTRAINT "proof_note_listing_id_key_pk" TO "validation_note_listing_id_key_pk";--> statement-breakpoint
ALTER TABLE "validation_note" RENAME CONSTRAINT "proof_note_listing_id_listing_id_fk" TO "validation_note_listing_id_listing_id_fk";--> statement-breakpoint
ALTER TABLE "validation_state" RENAME CONSTRAINT "proof_state_listing_id_listing_id_fk" TO "validation_state_listing_id_listing_id_fk";--> statement-breakpoint
ALTER TABLE "validation_waiver" RENAME CONSTRAINT "proof_waiver_listing_id_key_pk" TO "validation_waiver_listing_id_key_pk";--> statement-breakpoint
ALTER TABLE "validation_waiver" RENAME CONSTRAINT "proof_waiver_listing_id_listing_id_fk" TO "validation_waiver_listing_id_listing_id_fk";--> statement-breakpoint
ALTER INDEX "proof_note_kind" RENAME TO "validation_note_kind";--> statement-breakpoint
UPDATE "job" SET "kind" = CASE "kind" WHEN 'look' THEN 'import-preview' WHEN 'bring-in' THEN 'import' WHEN 'take-back' THEN 'import-undo' WHEN 'proof' THEN 'validation' ELSE "kind" END;--> statement-breakpoint
UPDATE "import_batch" SET "state" = CASE "state" WHEN 'looking' THEN 'previewing' WHEN 'coming-in' THEN 'importing' WHEN 'brought-in' THEN 'imported' WHEN 'going' THEN 'undoing' ELSE "state" END;
