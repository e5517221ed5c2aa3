CREATE TABLE "sign_offs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"title" text NOT NULL,
	"revision" integer NOT NULL,
	"release" integer,
	"definition" jsonb NOT NULL,
	"people" jsonb NOT NULL,
	"sha256" text NOT NULL,
	"author" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sweeps" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"release" integer,
	"revision" integer NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"copy" text,
	"viewers" integer DEFAULT 0 NOT NULL,
	"of_viewers" integer DEFAULT 0 NOT NULL,
	"asked" integer DEFAULT 0 NOT NULL,
	"to_ask" integer DEFAULT 0 NOT NULL,
	"surprises" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"surprise_count" integer DEFAULT 0 NOT NULL,
	"covered" jsonb,
	"failure" text,
	"builder_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"worked" integer DEFAULT 0 NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "applications" ADD COLUMN "sweep_of" text;--> statement-breakpoint
ALTER TABLE "sign_offs" ADD CONSTRAINT "sign_offs_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sign_offs" ADD CONSTRAINT "sign_offs_author_builders_id_fk" FOREIGN KEY ("author") REFERENCES "public"."builders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sweeps" ADD CONSTRAINT "sweeps_builder_id_builders_id_fk" FOREIGN KEY ("builder_id") REFERENCES "public"."builders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "sign_offs_application" ON "sign_offs" USING btree ("application_id","at");--> statement-breakpoint
CREATE INDEX "sweeps_application" ON "sweeps" USING btree ("application_id","at");