-- Where an id may be left out, null was taken too, though nothing was written for it. What an action sets is by the ids
-- of fields, which may be called anything; there null empties a field.
CREATE FUNCTION "without_null_ids"("json" jsonb) RETURNS jsonb LANGUAGE plpgsql AS $$
BEGIN
  CASE jsonb_typeof("json")
    WHEN 'array' THEN RETURN (
      SELECT coalesce(jsonb_agg("without_null_ids"("value") ORDER BY "place"), '[]')
        FROM jsonb_array_elements("json") WITH ORDINALITY AS "each"("value", "place"));
    WHEN 'object' THEN RETURN (
      SELECT coalesce(jsonb_object_agg("key", CASE "key" WHEN 'sets' THEN "value" ELSE "without_null_ids"("value") END), '{}')
        FROM jsonb_each("json")
        WHERE NOT ("value" = 'null'
          AND "key" IN ('through', 'of', 'opens', 'screen', 'startScreen', 'unitField', 'entity')));
    ELSE RETURN "json";
  END CASE;
END $$;
--> statement-breakpoint
UPDATE "snapshots" SET "definition" = "without_null_ids"("definition") WHERE "definition"::text ~ '": null';
--> statement-breakpoint
UPDATE "releases" SET "definition" = "without_null_ids"("definition") WHERE "definition"::text ~ '": null';
--> statement-breakpoint
DROP FUNCTION "without_null_ids"(jsonb);
