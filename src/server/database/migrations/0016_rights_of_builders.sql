CREATE TABLE "lifted_waits" (
	"account" text PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "confirmations" ADD COLUMN "shown_to" uuid[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "releases" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "outbox" RENAME COLUMN "owners_only" TO "for_builder";--> statement-breakpoint
ALTER TABLE "invitations" ADD COLUMN "invited_by" uuid;--> statement-breakpoint
-- Links of invitations were shown to owners until now, and who has sent them is not known: none of them opens any more.
-- An owner sends them again, to the address alone, and answers for them.
UPDATE "outbox" SET "link" = NULL WHERE "for_builder";--> statement-breakpoint
UPDATE "invitations" SET "expires_at" = least("expires_at", now()), "invited_by" =
	(SELECT m."builder_id" FROM "memberships" m JOIN "builders" b ON b."id" = m."builder_id"
		WHERE m."application_id" = "invitations"."application_id" AND m."role" = 'owner'
		ORDER BY b."created_at", b."id" LIMIT 1);--> statement-breakpoint
DELETE FROM "invitations" WHERE "invited_by" IS NULL;--> statement-breakpoint
ALTER TABLE "invitations" ALTER COLUMN "invited_by" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_inviter" FOREIGN KEY ("application_id","invited_by") REFERENCES "public"."memberships"("application_id","builder_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- What is done in copies is not in the audit trail: so nothing becomes one, and none becomes something else.
CREATE FUNCTION "copies_stay_copies"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION 'whether an application is the copy of a sweep is said when it is made, and never changed';
END $$;
--> statement-breakpoint
CREATE TRIGGER "applications_copies" BEFORE UPDATE ON "applications"
  FOR EACH ROW WHEN (OLD."sweep_of" IS DISTINCT FROM NEW."sweep_of") EXECUTE FUNCTION "copies_stay_copies"();
