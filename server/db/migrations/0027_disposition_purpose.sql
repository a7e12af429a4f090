ALTER TABLE "disposition" ADD COLUMN "only_line_id" uuid;--> statement-breakpoint
ALTER TABLE "disposition" ADD COLUMN "only_round_id" uuid;--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_only_line_id_line_id_fk" FOREIGN KEY ("only_line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_only_round_id_call_round_id_fk" FOREIGN KEY ("only_round_id") REFERENCES "public"."call_round"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_one_purpose" CHECK ("disposition"."only_line_id" is null or "disposition"."only_round_id" is null);