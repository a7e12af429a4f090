CREATE TABLE "bulk_company" (
	"bulk_id" uuid NOT NULL,
	"company_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"people" integer NOT NULL,
	CONSTRAINT "bulk_company_bulk_id_company_id_pk" PRIMARY KEY("bulk_id","company_id")
);
--> statement-breakpoint
CREATE TABLE "bulk_group" (
	"bulk_id" uuid NOT NULL,
	"name" text NOT NULL,
	"line_id" uuid NOT NULL,
	"zones" text NOT NULL,
	"wish_from" integer,
	"wish_to" integer,
	"people" integer NOT NULL,
	"begun" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "bulk_group_bulk_id_name_pk" PRIMARY KEY("bulk_id","name")
);
--> statement-breakpoint
CREATE TABLE "bulk_person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"bulk_id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"standing" text NOT NULL,
	"reason" text,
	"detail" text,
	"lately" boolean DEFAULT false NOT NULL,
	"phone_id" uuid,
	"e164" text,
	"line_id" uuid,
	"zones" text,
	"wish_from" integer,
	"wish_to" integer,
	"words" text,
	"units" integer,
	"parts" integer,
	"ref" text,
	"changed_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "bulk_person_standing_known" CHECK ("bulk_person"."standing" in ('chosen', 'ready', 'left-out', 'taken-out', 'texted', 'refused')),
	CONSTRAINT "bulk_person_reason_known" CHECK ("bulk_person"."reason" in ('no-number', 'not-usable', 'landline', 'opted-out', 'open-wish', 'no-line', 'same-number', 'empty-field', 'too-long', 'zone-unknown', 'never-in-hours', 'after-event')),
	CONSTRAINT "bulk_person_sendable" CHECK ("bulk_person"."standing" not in ('ready', 'texted')
    or ("bulk_person"."e164" is not null and "bulk_person"."line_id" is not null and "bulk_person"."zones" <> '' and "bulk_person"."words" is not null))
);
--> statement-breakpoint
CREATE TABLE "bulk_text" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"modules" jsonb NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"turn" integer DEFAULT 0 NOT NULL,
	"record_ids" uuid[] DEFAULT '{}' NOT NULL,
	"body" text DEFAULT '' NOT NULL,
	"template_id" uuid,
	"template_version" integer,
	"fill_ins" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"answers" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"line_id" uuid,
	"number_way" text DEFAULT 'mobile' NOT NULL,
	"lately_days" integer DEFAULT 3 NOT NULL,
	"occasion" text DEFAULT '' NOT NULL,
	"place" text DEFAULT '' NOT NULL,
	"event_at" timestamp (3) with time zone,
	"checked" integer DEFAULT 0 NOT NULL,
	"days" integer DEFAULT 1 NOT NULL,
	"runs" jsonb,
	"looked_at" timestamp (3) with time zone,
	"paced" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"why" text,
	"started_at" timestamp (3) with time zone,
	"ended_at" timestamp (3) with time zone,
	CONSTRAINT "bulk_text_state_known" CHECK ("bulk_text"."state" in ('draft', 'checking', 'checked', 'running', 'paused', 'stopped', 'done')),
	CONSTRAINT "bulk_text_number_way_known" CHECK ("bulk_text"."number_way" in ('mobile', 'answered'))
);
--> statement-breakpoint
ALTER TABLE "activity" DROP CONSTRAINT "activity_kind_known";--> statement-breakpoint
ALTER TABLE "message" DROP CONSTRAINT "message_origin_known";--> statement-breakpoint
DROP INDEX "conversation_newest";--> statement-breakpoint
ALTER TABLE "firm" ADD COLUMN "bulk_most" integer DEFAULT 200;--> statement-breakpoint
ALTER TABLE "conversation" ADD COLUMN "bulk_only" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "texts_a_minute" integer DEFAULT 60 NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "texts_a_day" integer;--> statement-breakpoint
ALTER TABLE "bulk_company" ADD CONSTRAINT "bulk_company_bulk_id_bulk_text_id_fk" FOREIGN KEY ("bulk_id") REFERENCES "public"."bulk_text"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_company" ADD CONSTRAINT "bulk_company_company_id_record_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_company" ADD CONSTRAINT "bulk_company_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_group" ADD CONSTRAINT "bulk_group_bulk_id_bulk_text_id_fk" FOREIGN KEY ("bulk_id") REFERENCES "public"."bulk_text"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_group" ADD CONSTRAINT "bulk_group_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_bulk_id_bulk_text_id_fk" FOREIGN KEY ("bulk_id") REFERENCES "public"."bulk_text"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_phone_id_phone_id_fk" FOREIGN KEY ("phone_id") REFERENCES "public"."phone"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD CONSTRAINT "bulk_person_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_template_id_template_id_fk" FOREIGN KEY ("template_id") REFERENCES "public"."template"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD CONSTRAINT "bulk_text_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_company_record" ON "bulk_company" USING btree ("company_id");--> statement-breakpoint
CREATE UNIQUE INDEX "bulk_person_once" ON "bulk_person" USING btree ("bulk_id","record_id");--> statement-breakpoint
CREATE INDEX "bulk_person_record" ON "bulk_person" USING btree ("record_id");--> statement-breakpoint
CREATE INDEX "bulk_person_phone" ON "bulk_person" USING btree ("phone_id");--> statement-breakpoint
CREATE INDEX "bulk_person_standing" ON "bulk_person" USING btree ("bulk_id","standing","reason","position");--> statement-breakpoint
CREATE INDEX "bulk_person_next" ON "bulk_person" USING btree ("bulk_id","line_id","zones","wish_from","wish_to","position") WHERE "bulk_person"."standing" = 'ready';--> statement-breakpoint
CREATE UNIQUE INDEX "bulk_person_number" ON "bulk_person" USING btree ("bulk_id","e164") WHERE "bulk_person"."standing" in ('ready', 'texted');--> statement-breakpoint
CREATE INDEX "bulk_text_made" ON "bulk_text" USING btree ("made_by","made_at");--> statement-breakpoint
CREATE INDEX "conversation_newest" ON "conversation" USING btree ("line_id","last_at","id") WHERE "conversation"."came_in" or not "conversation"."bulk_only";--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_kind_known" CHECK ("activity"."kind" in ('text-out', 'text-in', 'note', 'record-made', 'fields-changed', 'stage-changed', 'put-on', 'moved-on', 'taken-off', 'consent-changed', 'call-out', 'call-in', 'task-made', 'task-done', 'task-again', 'task-changed', 'task-withdrawn', 'nothing-needed', 'put-back', 'assigned', 'bulk-sent'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_origin_known" CHECK ("message"."origin" in ('by-hand', 'disposition', 'bulk', 'automatic'));