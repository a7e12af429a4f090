CREATE TABLE "group_member" (
	"group_id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	CONSTRAINT "group_member_group_id_record_id_pk" PRIMARY KEY("group_id","record_id")
);
--> statement-breakpoint
CREATE TABLE "people_group" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"made_by" uuid NOT NULL,
	"module" text,
	"conditions" json,
	"made_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "people_group_module_known" CHECK ("people_group"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover')),
	CONSTRAINT "people_group_rule" CHECK (("people_group"."module" is null) = ("people_group"."conditions" is null))
);
--> statement-breakpoint
ALTER TABLE "activity" DROP CONSTRAINT "activity_kind_known";--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "answered_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "group_id" uuid;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "whom" jsonb;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "repeats_id" uuid;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "came" integer;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "gone" integer;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "start_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "group_member" ADD CONSTRAINT "group_member_group_id_people_group_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."people_group"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_member" ADD CONSTRAINT "group_member_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "people_group" ADD CONSTRAINT "people_group_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "group_member_record" ON "group_member" USING btree ("record_id","group_id");--> statement-breakpoint
CREATE UNIQUE INDEX "people_group_name" ON "people_group" USING btree (lower("name"));--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_group_id_people_group_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."people_group"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_repeats_id_bulk_text_id_fk" FOREIGN KEY ("repeats_id") REFERENCES "public"."bulk_text"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_person_answered" ON "bulk_person" USING btree ("bulk_id","position") WHERE "bulk_person"."answered_at" is not null;--> statement-breakpoint
CREATE INDEX "bulk_text_group" ON "bulk_text" USING btree ("group_id","started_at") WHERE "bulk_text"."group_id" is not null;--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_kind_known" CHECK ("activity"."kind" in ('text-out', 'text-in', 'note', 'record-made', 'fields-changed', 'stage-changed', 'group-changed', 'put-on', 'moved-on', 'taken-off', 'consent-changed', 'call-out', 'call-in', 'task-made', 'task-done', 'task-again', 'task-changed', 'task-withdrawn', 'nothing-needed', 'put-back', 'assigned', 'bulk-sent'));