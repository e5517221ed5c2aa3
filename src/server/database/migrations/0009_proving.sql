CREATE TABLE "expectations" (
	"application_id" text NOT NULL,
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"expectation" jsonb NOT NULL,
	"author" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "proofs" (
	"application_id" text NOT NULL,
	"revision" integer NOT NULL,
	"findings" jsonb NOT NULL,
	"broken" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"expected" integer DEFAULT 0 NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "proofs_application_id_revision_pk" PRIMARY KEY("application_id","revision")
);
--> statement-breakpoint
CREATE TABLE "set_aside" (
	"application_id" text NOT NULL,
	"key" text NOT NULL,
	"basis" text NOT NULL,
	"reason" text NOT NULL,
	"author" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "set_aside_application_id_key_pk" PRIMARY KEY("application_id","key")
);
--> statement-breakpoint
ALTER TABLE "applications" ADD COLUMN "may_break" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "applications" ADD COLUMN "remind_days" integer;--> statement-breakpoint
ALTER TABLE "expectations" ADD CONSTRAINT "expectations_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "expectations" ADD CONSTRAINT "expectations_author_builders_id_fk" FOREIGN KEY ("author") REFERENCES "public"."builders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "proofs" ADD CONSTRAINT "proofs_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_aside" ADD CONSTRAINT "set_aside_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_aside" ADD CONSTRAINT "set_aside_author_builders_id_fk" FOREIGN KEY ("author") REFERENCES "public"."builders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "expectations_application" ON "expectations" USING btree ("application_id");--> statement-breakpoint
CREATE FUNCTION "tell_people"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('zinc_news', told.application_id || ' people') FROM (SELECT DISTINCT application_id FROM changed) told;
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE FUNCTION "tell_assignments"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('zinc_news', told.application_id || ' people') FROM (SELECT DISTINCT people.application_id FROM changed JOIN people ON people.id = changed.person_id) told;
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "people_added" AFTER INSERT ON "people" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_people();--> statement-breakpoint
CREATE TRIGGER "people_changed" AFTER UPDATE ON "people" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_people();--> statement-breakpoint
CREATE TRIGGER "people_removed" AFTER DELETE ON "people" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_people();--> statement-breakpoint
CREATE TRIGGER "assignments_added" AFTER INSERT ON "assignments" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_assignments();--> statement-breakpoint
CREATE TRIGGER "assignments_changed" AFTER UPDATE ON "assignments" REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_assignments();--> statement-breakpoint
CREATE TRIGGER "assignments_removed" AFTER DELETE ON "assignments" REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION tell_assignments();
