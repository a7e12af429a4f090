ALTER TABLE "call_handing" RENAME TO "call_transfer";--> statement-breakpoint
ALTER TABLE "colleague" RENAME COLUMN "email" TO "mail";--> statement-breakpoint
ALTER TABLE "conversation" RENAME COLUMN "other" TO "remote";--> statement-breakpoint
ALTER TABLE "call" RENAME COLUMN "other" TO "remote";--> statement-breakpoint
ALTER TABLE "colleague" DROP CONSTRAINT "colleague_email_unique";--> statement-breakpoint
ALTER TABLE "conversation" DROP CONSTRAINT "conversation_line_other";--> statement-breakpoint
ALTER TABLE "call_transfer" DROP CONSTRAINT "call_handing_way_known";--> statement-breakpoint
ALTER TABLE "call_transfer" DROP CONSTRAINT "call_handing_state_known";--> statement-breakpoint
ALTER TABLE "disposition" DROP CONSTRAINT "disposition_colour_known";--> statement-breakpoint
UPDATE "call_transfer" SET "way" = CASE "way" WHEN 'straight' THEN 'blind' ELSE 'attended' END, "state" = CASE "state" WHEN 'handed' THEN 'transferred' ELSE "state" END;--> statement-breakpoint
UPDATE "disposition" SET "colour" = CASE "colour" WHEN 'mulberry' THEN 'accent' WHEN 'pine' THEN 'good' WHEN 'saffron' THEN 'waiting' WHEN 'slate' THEN 'calm' WHEN 'brick' THEN 'wrong' ELSE 'plain' END;--> statement-breakpoint
UPDATE "job" SET "kind" = 'transfer-back' WHERE "kind" = 'handing-back';--> statement-breakpoint
ALTER TABLE "call_transfer" DROP CONSTRAINT "call_handing_call_id_call_id_fk";
--> statement-breakpoint
ALTER TABLE "call_transfer" DROP CONSTRAINT "call_handing_from_id_colleague_id_fk";
--> statement-breakpoint
ALTER TABLE "call_transfer" DROP CONSTRAINT "call_handing_to_id_colleague_id_fk";
--> statement-breakpoint
DROP INDEX "conversation_other";--> statement-breakpoint
DROP INDEX "call_other";--> statement-breakpoint
DROP INDEX "call_handing_of";--> statement-breakpoint
DROP INDEX "call_handing_open";--> statement-breakpoint
DROP INDEX "call_handing_to";--> statement-breakpoint
ALTER TABLE "disposition" ALTER COLUMN "colour" SET DEFAULT 'accent';--> statement-breakpoint
ALTER TABLE "call_transfer" ADD CONSTRAINT "call_transfer_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_transfer" ADD CONSTRAINT "call_transfer_from_id_colleague_id_fk" FOREIGN KEY ("from_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_transfer" ADD CONSTRAINT "call_transfer_to_id_colleague_id_fk" FOREIGN KEY ("to_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "conversation_remote" ON "conversation" USING btree ("remote");--> statement-breakpoint
CREATE INDEX "call_remote" ON "call" USING btree ("remote","made_at");--> statement-breakpoint
CREATE INDEX "call_transfer_of" ON "call_transfer" USING btree ("call_id","asked_at");--> statement-breakpoint
CREATE UNIQUE INDEX "call_transfer_open" ON "call_transfer" USING btree ("call_id") WHERE "call_transfer"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "call_transfer_to" ON "call_transfer" USING btree ("to_id") WHERE "call_transfer"."ended_at" is null;--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_mail_unique" UNIQUE("mail");--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_line_remote" UNIQUE("line_id","remote");--> statement-breakpoint
ALTER TABLE "call_transfer" ADD CONSTRAINT "call_transfer_way_known" CHECK ("call_transfer"."way" in ('blind', 'attended'));--> statement-breakpoint
ALTER TABLE "call_transfer" ADD CONSTRAINT "call_transfer_state_known" CHECK ("call_transfer"."state" in ('asked', 'together', 'transferred', 'back', 'over'));--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_colour_known" CHECK ("disposition"."colour" in ('accent', 'good', 'waiting', 'calm', 'wrong', 'plain'));