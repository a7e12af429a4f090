ALTER TABLE "colleague" ADD COLUMN "chimes" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "notifies" boolean DEFAULT false NOT NULL;