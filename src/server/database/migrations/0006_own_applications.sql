CREATE TABLE "builder_links" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"builder_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "former_addresses" (
	"slug" text PRIMARY KEY NOT NULL,
	"application_id" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "builders" ALTER COLUMN "password_hash" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "seen_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "outbox" ADD COLUMN "owners_only" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "builder_links" ADD CONSTRAINT "builder_links_builder_id_builders_id_fk" FOREIGN KEY ("builder_id") REFERENCES "public"."builders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "former_addresses" ADD CONSTRAINT "former_addresses_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;