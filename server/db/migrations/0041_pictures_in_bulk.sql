ALTER TABLE "bulk_person" DROP CONSTRAINT "bulk_person_reason_known";--> statement-breakpoint
ALTER TABLE "bulk_text" DROP CONSTRAINT "bulk_text_number_way_known";--> statement-breakpoint
ALTER TABLE "picture" ALTER COLUMN "bytes" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "answer_noted_by" uuid;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "number_label" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "picture_ids" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD COLUMN "of_id" uuid;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_answer_noted_by_colleague_id_fk" FOREIGN KEY ("answer_noted_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_of_id_picture_id_fk" FOREIGN KEY ("of_id") REFERENCES "public"."picture"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "picture_of" ON "picture" USING btree ("of_id") WHERE "picture"."of_id" is not null;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_reason_known" CHECK ("bulk_person"."reason" in ('no-number', 'not-usable', 'landline', 'opted-out', 'open-wish', 'no-line', 'no-pictures', 'answered', 'same-number', 'other-audience', 'own-words-old', 'empty-field', 'too-long', 'zone-unknown', 'never-in-hours', 'after-event'));--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_number_way_known" CHECK ("bulk_text"."number_way" in ('mobile', 'answered', 'label'));--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_somewhere" CHECK (("picture"."bytes" is null) <> ("picture"."of_id" is null));