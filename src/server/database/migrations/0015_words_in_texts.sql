-- Indexes of words need this module of PostgreSQL's. Where it may not be had, words are found without them, slower.
DO $$ BEGIN
	CREATE EXTENSION IF NOT EXISTS pg_trgm;
EXCEPTION WHEN OTHERS THEN
	NULL;
END $$;
