ALTER TABLE "colleague" ADD COLUMN "clock_hours" smallint;--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "day_first" boolean;--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_clock_hours" CHECK ("colleague"."clock_hours" in (12, 24));