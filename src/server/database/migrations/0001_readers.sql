-- Typed readers of a record's values. They never throw: what is not of the type reads as null, since
-- PostgreSQL may evaluate them on records that the viewer may not see, and an error would tell.
CREATE FUNCTION zg_text(value jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS
  $$ SELECT CASE WHEN jsonb_typeof(value) = 'string' THEN value #>> '{}' END $$;
--> statement-breakpoint
CREATE FUNCTION zg_boolean(value jsonb) RETURNS boolean LANGUAGE sql IMMUTABLE PARALLEL SAFE AS
  $$ SELECT CASE value WHEN 'true'::jsonb THEN true WHEN 'false'::jsonb THEN false END $$;
--> statement-breakpoint
CREATE FUNCTION zg_decimal(value jsonb) RETURNS numeric LANGUAGE sql IMMUTABLE PARALLEL SAFE AS
  $$ SELECT CASE WHEN zg_text(value) ~ '^-?[0-9]{1,15}(\.[0-9]{1,10})?$' THEN zg_text(value)::numeric END $$;
