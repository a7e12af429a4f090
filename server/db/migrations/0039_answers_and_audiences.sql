ALTER TABLE "bulk_person" DROP CONSTRAINT "bulk_person_reason_known";--> statement-breakpoint
ALTER TABLE "message" DROP CONSTRAINT "message_origin_known";--> statement-breakpoint
DROP INDEX "bulk_person_number";--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "occasion_id" uuid;--> statement-breakpoint
UPDATE "bulk_person" SET "occasion_id" = "bulk_id";--> statement-breakpoint
ALTER TABLE "bulk_person" ALTER COLUMN "occasion_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "answers_id" uuid;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "occasion_id" uuid;--> statement-breakpoint
UPDATE "bulk_text" SET "occasion_id" = "id";--> statement-breakpoint
ALTER TABLE "bulk_text" ALTER COLUMN "occasion_id" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_answers_id_bulk_text_id_fk" FOREIGN KEY ("answers_id") REFERENCES "public"."bulk_text"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_person_heard" ON "bulk_person" USING btree ("e164","answered_at") WHERE "bulk_person"."standing" = 'texted' and "bulk_person"."answered_at" is not null;--> statement-breakpoint
CREATE INDEX "bulk_text_occasion" ON "bulk_text" USING btree ("occasion_id");--> statement-breakpoint
CREATE UNIQUE INDEX "bulk_person_number" ON "bulk_person" USING btree ("occasion_id","e164") WHERE "bulk_person"."standing" in ('ready', 'texted');--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_reason_known" CHECK ("bulk_person"."reason" in ('no-number', 'not-usable', 'landline', 'opted-out', 'open-wish', 'no-line', 'answered', 'same-number', 'other-audience', 'own-words-old', 'empty-field', 'too-long', 'zone-unknown', 'never-in-hours', 'after-event'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_origin_known" CHECK ("message"."origin" in ('by-hand', 'disposition', 'bulk', 'bulk-answer', 'automatic'));