CREATE TABLE "former_addresses" (
	"slug" text PRIMARY KEY NOT NULL,
	"application_id" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "seen_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "former_addresses" ADD CONSTRAINT "former_addresses_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;