ALTER TABLE "edits" ADD COLUMN "skips" integer[];--> statement-breakpoint
ALTER TABLE "releases" ADD COLUMN "note" text DEFAULT '' NOT NULL;