ALTER TABLE "line" ADD COLUMN "take_order" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "took_last" uuid;--> statement-breakpoint
ALTER TABLE "line" ADD CONSTRAINT "line_took_last_colleague_id_fk" FOREIGN KEY ("took_last") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;