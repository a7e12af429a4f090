ALTER TABLE "conversation" ADD COLUMN "came_in" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "conversation" ADD COLUMN "went_out" boolean DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE "conversation" v SET "came_in" = exists (select 1 from "message" m where m.conversation_id = v.id and m.direction = 'in'),
  "went_out" = exists (select 1 from "message" m where m.conversation_id = v.id and m.direction = 'out');--> statement-breakpoint
CREATE INDEX "conversation_sent_only" ON "conversation" USING btree ("line_id","last_at","id") WHERE not "conversation"."came_in";--> statement-breakpoint
CREATE INDEX "conversation_received_only" ON "conversation" USING btree ("line_id","last_at","id") WHERE not "conversation"."went_out";--> statement-breakpoint
CREATE INDEX "message_trouble" ON "message" USING btree ("conversation_id") WHERE "message"."state" in ('failed', 'held');