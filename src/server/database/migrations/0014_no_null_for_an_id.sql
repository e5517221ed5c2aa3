-- Where an id may be left out, null was taken too, though nothing was written for it. Within a text a quotation mark
-- has a backslash before it.
UPDATE "snapshots" SET "definition" = regexp_replace(regexp_replace("definition"::text,
    '(?<!\\)"(through|of|opens|screen|startScreen|unitField|entity)": null, ', '', 'g'),
    '(, )?(?<!\\)"(through|of|opens|screen|startScreen|unitField|entity)": null(?=})', '', 'g')::jsonb
  WHERE "definition"::text ~ '(?<!\\)"(through|of|opens|screen|startScreen|unitField|entity)": null';
--> statement-breakpoint
UPDATE "releases" SET "definition" = regexp_replace(regexp_replace("definition"::text,
    '(?<!\\)"(through|of|opens|screen|startScreen|unitField|entity)": null, ', '', 'g'),
    '(, )?(?<!\\)"(through|of|opens|screen|startScreen|unitField|entity)": null(?=})', '', 'g')::jsonb
  WHERE "definition"::text ~ '(?<!\\)"(through|of|opens|screen|startScreen|unitField|entity)": null';
