ALTER TABLE "bulk_person" DROP CONSTRAINT "bulk_person_standing_known";--> statement-breakpoint
ALTER TABLE "bulk_person" DROP CONSTRAINT "bulk_person_reason_known";--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "own_phone_id" uuid;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "own_words" text;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "own_wording" integer;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "wording" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "hold_out" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_own_phone_id_phone_id_fk" FOREIGN KEY ("own_phone_id") REFERENCES "public"."phone"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_person_own_phone" ON "bulk_person" USING btree ("own_phone_id") WHERE "bulk_person"."own_phone_id" is not null;--> statement-breakpoint
CREATE INDEX "bulk_person_unanswered" ON "bulk_person" USING btree ("e164") WHERE "bulk_person"."standing" in ('texted', 'held-out') and "bulk_person"."answered_at" is null;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_standing_known" CHECK ("bulk_person"."standing" in ('chosen', 'ready', 'left-out', 'taken-out', 'held-out', 'texted', 'refused'));--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_reason_known" CHECK ("bulk_person"."reason" in ('no-number', 'not-usable', 'landline', 'opted-out', 'open-wish', 'no-line', 'same-number', 'own-words-old', 'empty-field', 'too-long', 'zone-unknown', 'never-in-hours', 'after-event'));