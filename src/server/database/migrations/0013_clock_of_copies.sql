ALTER TABLE "applications" ADD COLUMN "clock_ahead" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" DROP COLUMN "clock_ahead";--> statement-breakpoint
ALTER TABLE "applications" ADD CONSTRAINT "applications_clock" CHECK ("applications"."clock_ahead" = 0 or "applications"."sweep_of" is not null);