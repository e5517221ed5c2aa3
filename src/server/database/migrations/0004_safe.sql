CREATE TABLE "devices" (
	"token_hash" text NOT NULL,
	"account" text NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "devices_token_hash_account_pk" PRIMARY KEY("token_hash","account")
);
--> statement-breakpoint
ALTER TABLE "people" ALTER COLUMN "password_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "confirmations" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "edits" ADD COLUMN "request" uuid;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "people" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "link" text;--> statement-breakpoint
ALTER TABLE "sign_in_attempts" ADD COLUMN "source" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "sign_in_attempts" ADD COLUMN "told" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "sign_in_attempts_source" ON "sign_in_attempts" USING btree ("source","at");--> statement-breakpoint
ALTER TABLE "edits" ADD CONSTRAINT "edits_request" UNIQUE("application_id","author","request");--> statement-breakpoint
-- Until now only owners and editors could; who owns an application goes on, editors are given it.
UPDATE "memberships" SET "people" = true WHERE "role" = 'owner';--> statement-breakpoint
-- Whoever asked for an account that nobody has confirmed yet chose its password. Whoever opens the link does.
UPDATE "people" SET "password_hash" = NULL WHERE NOT "confirmed";--> statement-breakpoint
UPDATE "outbox" SET "link" = substring("body" from 'https?://[^ ]+/confirm\?token=[^ ]+'),
  "body" = regexp_replace("body", 'https?://[^ ]+/confirm\?token=[^ ]+', '{link}')
  WHERE "body" ~ 'https?://[^ ]+/confirm\?token=[^ ]+';
