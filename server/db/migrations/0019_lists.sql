CREATE TABLE "contact" (
	"record_id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "contact_module_known" CHECK ("contact"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'))
);
--> statement-breakpoint
DROP INDEX "record_contact";--> statement-breakpoint
DROP INDEX "record_contact_down";--> statement-breakpoint
DROP INDEX "record_name";--> statement-breakpoint
DROP INDEX "record_pipeline";--> statement-breakpoint
DROP INDEX "record_stage";--> statement-breakpoint
ALTER TABLE "contact" ADD CONSTRAINT "contact_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "contact_at" ON "contact" USING btree ("module","at","record_id");--> statement-breakpoint
CREATE INDEX "number_state_refused" ON "number_state" USING btree ("e164") WHERE "number_state"."texts" = 'refused';--> statement-breakpoint
CREATE INDEX "phone_first" ON "phone" USING btree ((coalesce("e164", "typed") collate "und-x-icu")) WHERE "phone"."position" = 0;--> statement-breakpoint
CREATE INDEX "record_title" ON "record" USING btree ("module",("title" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_city" ON "record" USING btree ("module",("city" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_mail" ON "record" USING btree ("module",("mail" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_street" ON "record" USING btree ("module",("street" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_postcode" ON "record" USING btree ("module",("postcode" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_region" ON "record" USING btree ("module",("region" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_country" ON "record" USING btree ("module",("country" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_sorted_tags" ON "record" USING btree ("module",(nullif("tags", '{}') collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_owner" ON "record" USING btree ("module","owner_id","id");--> statement-breakpoint
CREATE INDEX "record_name" ON "record" USING btree ("module",("name" collate "und-x-icu"),"id");--> statement-breakpoint
CREATE INDEX "record_pipeline" ON "record" USING btree ("pipeline_id","id") WHERE "record"."pipeline_id" is not null;--> statement-breakpoint
CREATE INDEX "record_stage" ON "record" USING btree ("stage_id","id") WHERE "record"."stage_id" is not null;--> statement-breakpoint
INSERT INTO "contact" ("record_id", "module", "at") SELECT "id", "module", "last_contact_at" FROM "record" WHERE "last_contact_at" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "record" DROP COLUMN "last_contact_at";