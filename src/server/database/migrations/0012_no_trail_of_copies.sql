-- What is done in the copies that sweeps ask is done by nobody: it has no place among what people did.
CREATE FUNCTION "is_no_copy"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF EXISTS (SELECT 1 FROM "applications" WHERE "id" = NEW."application_id" AND "sweep_of" IS NOT NULL) THEN
    RETURN NULL;
  END IF;
  RETURN NEW;
END $$;
--> statement-breakpoint
CREATE TRIGGER "audit_events_of_applications" BEFORE INSERT ON "audit_events"
  FOR EACH ROW WHEN (NEW."application_id" IS NOT NULL) EXECUTE FUNCTION "is_no_copy"();
