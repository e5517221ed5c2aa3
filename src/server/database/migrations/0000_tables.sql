CREATE TABLE "applications" (
	"id" text PRIMARY KEY NOT NULL,
	"slug" text NOT NULL,
	"name" text NOT NULL,
	"head_revision" integer DEFAULT 0 NOT NULL,
	"release" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "applications_slug_unique" UNIQUE("slug")
);
--> statement-breakpoint
CREATE TABLE "assignments" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"role_id" text NOT NULL,
	"unit_id" text,
	"from" timestamp with time zone,
	"until" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "audit_events" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"builder_id" uuid,
	"person_id" uuid,
	"what" text NOT NULL,
	"detail" jsonb DEFAULT '{}'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "builders" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"password_hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "builders_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "edits" (
	"application_id" text NOT NULL,
	"revision" integer NOT NULL,
	"edit" jsonb NOT NULL,
	"inverse" jsonb NOT NULL,
	"format" integer NOT NULL,
	"author" uuid NOT NULL,
	"undoes" integer,
	"redoes" integer,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "edits_application_id_revision_pk" PRIMARY KEY("application_id","revision")
);
--> statement-breakpoint
CREATE TABLE "installation" (
	"id" integer PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"demo_password" text
);
--> statement-breakpoint
CREATE TABLE "memberships" (
	"application_id" text NOT NULL,
	"builder_id" uuid NOT NULL,
	"role" text NOT NULL,
	"pins" uuid[] DEFAULT '{}' NOT NULL,
	CONSTRAINT "memberships_application_id_builder_id_pk" PRIMARY KEY("application_id","builder_id")
);
--> statement-breakpoint
CREATE TABLE "people" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"password_hash" text NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"start_screen" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "people_email" UNIQUE("application_id","email")
);
--> statement-breakpoint
CREATE TABLE "records" (
	"application_id" text NOT NULL,
	"kind" text NOT NULL,
	"entity" text NOT NULL,
	"id" text NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"data" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "records_application_id_kind_entity_id_pk" PRIMARY KEY("application_id","kind","entity","id")
);
--> statement-breakpoint
CREATE TABLE "releases" (
	"application_id" text NOT NULL,
	"number" integer NOT NULL,
	"revision" integer NOT NULL,
	"definition" jsonb NOT NULL,
	"author" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "releases_application_id_number_pk" PRIMARY KEY("application_id","number")
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"audience" text NOT NULL,
	"builder_id" uuid,
	"application_id" text,
	"person_id" uuid,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "sessions_audience" CHECK (("sessions"."audience" = 'studio' and "sessions"."builder_id" is not null and "sessions"."person_id" is null)
       or ("sessions"."audience" = 'live' and "sessions"."builder_id" is null and "sessions"."person_id" is not null and "sessions"."application_id" is not null))
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"account" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "snapshots" (
	"application_id" text NOT NULL,
	"revision" integer NOT NULL,
	"definition" jsonb NOT NULL,
	CONSTRAINT "snapshots_application_id_revision_pk" PRIMARY KEY("application_id","revision")
);
--> statement-breakpoint
ALTER TABLE "assignments" ADD CONSTRAINT "assignments_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edits" ADD CONSTRAINT "edits_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edits" ADD CONSTRAINT "edits_author_builders_id_fk" FOREIGN KEY ("author") REFERENCES "public"."builders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "memberships" ADD CONSTRAINT "memberships_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "memberships" ADD CONSTRAINT "memberships_builder_id_builders_id_fk" FOREIGN KEY ("builder_id") REFERENCES "public"."builders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people" ADD CONSTRAINT "people_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "records" ADD CONSTRAINT "records_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "releases" ADD CONSTRAINT "releases_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "releases" ADD CONSTRAINT "releases_author_builders_id_fk" FOREIGN KEY ("author") REFERENCES "public"."builders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_builder_id_builders_id_fk" FOREIGN KEY ("builder_id") REFERENCES "public"."builders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "snapshots" ADD CONSTRAINT "snapshots_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "assignments_person" ON "assignments" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "audit_events_at" ON "audit_events" USING btree ("application_id","at");--> statement-breakpoint
CREATE INDEX "edits_author" ON "edits" USING btree ("application_id","author","revision");--> statement-breakpoint
CREATE INDEX "records_data" ON "records" USING gin ("data" jsonb_path_ops);--> statement-breakpoint
CREATE INDEX "sessions_person" ON "sessions" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "sessions_expires" ON "sessions" USING btree ("expires_at");--> statement-breakpoint
CREATE INDEX "sign_in_attempts_account" ON "sign_in_attempts" USING btree ("account","at");