ALTER TABLE "line" ADD COLUMN "busy_greeting" text;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "ring_sound" text DEFAULT 'quick' NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD CONSTRAINT "line_ring_sound_known" CHECK ("line"."ring_sound" in ('quick', 'low', 'bell'));