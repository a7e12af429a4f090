ALTER TABLE "money_entry" DROP CONSTRAINT "money_entry_kind_known";--> statement-breakpoint
ALTER TABLE "money_entry" ADD COLUMN "call_id" uuid;--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "money_entry_call_once" ON "money_entry" USING btree ("call_id") WHERE "money_entry"."kind" = 'call';--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_kind_known" CHECK ("money_entry"."kind" in ('paid-in', 'text', 'call', 'rent', 'correction'));