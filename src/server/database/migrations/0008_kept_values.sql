CREATE TABLE "kept_values" (
	"application_id" text NOT NULL,
	"kind" text NOT NULL,
	"entity" text NOT NULL,
	"id" text NOT NULL,
	"field" text NOT NULL,
	"type" text NOT NULL,
	"value" jsonb NOT NULL,
	"became" jsonb,
	CONSTRAINT "kept_values_application_id_kind_entity_id_field_type_pk" PRIMARY KEY("application_id","kind","entity","id","field","type")
);
--> statement-breakpoint
ALTER TABLE "kept_values" ADD CONSTRAINT "kept_values_application_id_applications_id_fk" FOREIGN KEY ("application_id") REFERENCES "public"."applications"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_values" ADD CONSTRAINT "kept_values_record" FOREIGN KEY ("application_id","kind","entity","id") REFERENCES "public"."records"("application_id","kind","entity","id") ON DELETE cascade ON UPDATE no action;