-- What Proof found is derived: it is looked for anew, and kept as a code with what it names.
DELETE FROM "validation_note";--> statement-breakpoint
DELETE FROM "validation_state";--> statement-breakpoint
ALTER TABLE "validation_note" ADD COLUMN "says" jsonb NOT NULL;
