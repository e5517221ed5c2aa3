CREATE TABLE "invitations" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"token_hash" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "invitations_token_hash_unique" UNIQUE("token_hash"),
	CONSTRAINT "invitations_email" UNIQUE("application_id","email")
);
--> statement-breakpoint
ALTER TABLE "invitations" ADD CONSTRAINT "invitations_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- Who was let in and has chosen no password yet, is an invitation now. Their link goes on opening one of them.
INSERT INTO "invitations" ("application_id", "email", "name", "role", "token_hash", "expires_at")
SELECT m."application_id", b."email", b."name", m."role",
	CASE WHEN row_number() OVER (PARTITION BY b."id" ORDER BY m."application_id") = 1 AND l."token_hash" IS NOT NULL
		THEN l."token_hash" ELSE gen_random_uuid()::text END,
	coalesce(l."expires_at", now())
FROM "builders" b
JOIN "memberships" m ON m."builder_id" = b."id"
LEFT JOIN "builder_links" l ON l."builder_id" = b."id"
WHERE b."password_hash" IS NULL;--> statement-breakpoint
DELETE FROM "builders" WHERE "password_hash" IS NULL;--> statement-breakpoint
DROP TABLE "builder_links" CASCADE;--> statement-breakpoint
ALTER TABLE "builders" ALTER COLUMN "password_hash" SET NOT NULL;
