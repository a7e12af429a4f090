ALTER TABLE "line" ADD COLUMN "stand_in_id" uuid;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "meant_line_id" uuid;--> statement-breakpoint
ALTER TABLE "line" ADD CONSTRAINT "line_stand_in_id_line_id_fk" FOREIGN KEY ("stand_in_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_meant_line_id_line_id_fk" FOREIGN KEY ("meant_line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;