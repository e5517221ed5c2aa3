CREATE TABLE "made_viewers" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"name" text NOT NULL,
	"viewer" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "notes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"person_id" uuid,
	"address" text NOT NULL,
	"element" text,
	"text" text NOT NULL,
	"release" integer NOT NULL,
	"session" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"done_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "pane_records" (
	"pane_id" uuid NOT NULL,
	"entity" text NOT NULL,
	"id" text NOT NULL,
	"version" integer NOT NULL,
	"data" jsonb,
	"over" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "pane_records_pane_id_entity_id_pk" PRIMARY KEY("pane_id","entity","id")
);
--> statement-breakpoint
CREATE TABLE "panes" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"application_id" text NOT NULL,
	"builder_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"used_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "audit_events" ADD COLUMN "standing_in" uuid;--> statement-breakpoint
ALTER TABLE "memberships" ADD COLUMN "live" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "standing_for" uuid;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "standing_until" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "made_viewers" ADD CONSTRAINT "made_viewers_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notes" ADD CONSTRAINT "notes_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notes" ADD CONSTRAINT "notes_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pane_records" ADD CONSTRAINT "pane_records_pane_id_panes_id_fk" FOREIGN KEY ("pane_id") REFERENCES "public"."panes"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "panes" ADD CONSTRAINT "panes_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "panes" ADD CONSTRAINT "panes_builder_id_builders_id_fk" FOREIGN KEY ("builder_id") REFERENCES "public"."builders"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "notes_open" ON "notes" USING btree ("application_id","done_at","at");--> statement-breakpoint
CREATE INDEX "panes_used" ON "panes" USING btree ("used_at");--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_standing_for_people_id_fk" FOREIGN KEY ("standing_for") REFERENCES "public"."people"("id") ON DELETE set null ON UPDATE no action;