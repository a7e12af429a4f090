CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE TABLE "consent_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" bigserial NOT NULL,
	"e164" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"kind" text NOT NULL,
	"covers" text NOT NULL,
	"how" text NOT NULL,
	"words" text,
	"message_id" uuid,
	"colleague_id" uuid
);
--> statement-breakpoint
CREATE TABLE "consent_proposal" (
	"id" uuid PRIMARY KEY NOT NULL,
	"e164" text NOT NULL,
	"activity_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"decided_at" timestamp (3) with time zone,
	"decided_by" uuid,
	"opted_out" text
);
--> statement-breakpoint
CREATE TABLE "number_state" (
	"e164" text PRIMARY KEY NOT NULL,
	"texts" text DEFAULT 'unknown' NOT NULL,
	"calls" text DEFAULT 'unknown' NOT NULL,
	"texts_entry_id" uuid,
	"last_heard_at" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "audit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"colleague_id" uuid,
	"action" text NOT NULL,
	"details" jsonb DEFAULT '{}'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "colleague" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"first_name" text NOT NULL,
	"email" text NOT NULL,
	"password_hash" text NOT NULL,
	"role" text NOT NULL,
	"title" text NOT NULL,
	"direct_line" text,
	"zone" text NOT NULL,
	CONSTRAINT "colleague_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "firm" (
	"id" smallint PRIMARY KEY DEFAULT 1 NOT NULL,
	"name" text NOT NULL,
	"country" text NOT NULL,
	"texting_on" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sign_in" (
	"token_hash" text PRIMARY KEY NOT NULL,
	"colleague_id" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"ends_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "team" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "team_member" (
	"team_id" uuid NOT NULL,
	"colleague_id" uuid NOT NULL,
	CONSTRAINT "team_member_team_id_colleague_id_pk" PRIMARY KEY("team_id","colleague_id")
);
--> statement-breakpoint
CREATE TABLE "job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"key" text NOT NULL,
	"payload" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"lane" text NOT NULL,
	"order_at" timestamp (3) with time zone NOT NULL,
	"due_at" timestamp (3) with time zone NOT NULL,
	"attempt" integer DEFAULT 0 NOT NULL,
	"lease_until" timestamp (3) with time zone,
	"done_at" timestamp (3) with time zone,
	CONSTRAINT "job_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "custom_field" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"key" text NOT NULL,
	"label" text NOT NULL,
	"kind" text NOT NULL,
	"example" text NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "custom_field_key" UNIQUE("module","key")
);
--> statement-breakpoint
CREATE TABLE "phone" (
	"id" uuid PRIMARY KEY NOT NULL,
	"record_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"label" text NOT NULL,
	"typed" text NOT NULL,
	"e164" text,
	"country" text,
	"kind" text NOT NULL,
	"extension" text,
	"unusable" text
);
--> statement-breakpoint
CREATE TABLE "record" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"name" text NOT NULL,
	"first_name" text,
	"last_name" text,
	"title" text,
	"owner_id" uuid NOT NULL,
	"team_id" uuid NOT NULL,
	"company_id" uuid,
	"stage" text,
	"street" text,
	"city" text,
	"region" text,
	"postcode" text,
	"country" text,
	"zone" text,
	"mail" text,
	"fields" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"last_contact_at" timestamp (3) with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "template" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"modules" text[] NOT NULL,
	"body" text NOT NULL,
	"version" integer NOT NULL,
	"owner_id" uuid NOT NULL,
	"changed_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "template_version" (
	"template_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"name" text NOT NULL,
	"body" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"colleague_id" uuid NOT NULL,
	CONSTRAINT "template_version_template_id_version_pk" PRIMARY KEY("template_id","version")
);
--> statement-breakpoint
CREATE TABLE "carrier_cursor" (
	"carrier" text PRIMARY KEY NOT NULL,
	"cursor" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "carrier_event" (
	"carrier" text NOT NULL,
	"id" text NOT NULL,
	"kind" text NOT NULL,
	"carrier_ref" text NOT NULL,
	"code" text,
	"at" timestamp (3) with time zone NOT NULL,
	"received_at" timestamp (3) with time zone NOT NULL,
	"message_id" uuid,
	CONSTRAINT "carrier_event_carrier_id_pk" PRIMARY KEY("carrier","id")
);
--> statement-breakpoint
CREATE TABLE "carrier_price" (
	"carrier" text NOT NULL,
	"country" text NOT NULL,
	"micros_per_part" integer NOT NULL,
	"currency" text NOT NULL,
	"most_parts" integer NOT NULL,
	CONSTRAINT "carrier_price_carrier_country_pk" PRIMARY KEY("carrier","country")
);
--> statement-breakpoint
CREATE TABLE "conversation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"line_id" uuid NOT NULL,
	"other" text NOT NULL,
	"waits_since" timestamp (3) with time zone,
	"last_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "conversation_line_other" UNIQUE("line_id","other")
);
--> statement-breakpoint
CREATE TABLE "line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"e164" text NOT NULL,
	"name" text NOT NULL,
	"country" text NOT NULL,
	"team_id" uuid,
	"colleague_id" uuid,
	"private" boolean DEFAULT false NOT NULL,
	"active" boolean DEFAULT true NOT NULL,
	"carrier" text NOT NULL,
	CONSTRAINT "line_e164_unique" UNIQUE("e164")
);
--> statement-breakpoint
CREATE TABLE "message" (
	"id" uuid PRIMARY KEY NOT NULL,
	"conversation_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"direction" text NOT NULL,
	"origin" text,
	"author_id" uuid,
	"record_id" uuid,
	"template_id" uuid,
	"template_version" integer,
	"state" text NOT NULL,
	"code" text,
	"night_allowed" boolean DEFAULT false NOT NULL,
	"confirms_opt_out" boolean DEFAULT false NOT NULL,
	"answers_since" timestamp (3) with time zone,
	"encoding" text NOT NULL,
	"units" integer NOT NULL,
	"parts" integer NOT NULL,
	"cost_micros" bigint,
	"currency" text,
	"made_at" timestamp (3) with time zone NOT NULL,
	"leaves_at" timestamp (3) with time zone NOT NULL,
	"handed_at" timestamp (3) with time zone,
	"settled_at" timestamp (3) with time zone,
	"carrier_ref" text,
	CONSTRAINT "message_carrier_ref_unique" UNIQUE("carrier_ref")
);
--> statement-breakpoint
CREATE TABLE "activity" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"kind" text NOT NULL,
	"colleague_id" uuid,
	"message_id" uuid,
	"data" jsonb DEFAULT '{}'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "activity_content" (
	"activity_id" uuid PRIMARY KEY NOT NULL,
	"words" text,
	"data" jsonb
);
--> statement-breakpoint
CREATE TABLE "activity_on_record" (
	"record_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"activity_id" uuid NOT NULL,
	"via_record_id" uuid,
	"private_line_id" uuid,
	CONSTRAINT "activity_on_record_record_id_at_activity_id_pk" PRIMARY KEY("record_id","at","activity_id")
);
--> statement-breakpoint
ALTER TABLE "consent_entry" ADD CONSTRAINT "consent_entry_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consent_proposal" ADD CONSTRAINT "consent_proposal_decided_by_colleague_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audit" ADD CONSTRAINT "audit_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sign_in" ADD CONSTRAINT "sign_in_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_member" ADD CONSTRAINT "team_member_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "team_member" ADD CONSTRAINT "team_member_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "phone" ADD CONSTRAINT "phone_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_owner_id_colleague_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_owner_id_colleague_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template_version" ADD CONSTRAINT "template_version_template_id_template_id_fk" FOREIGN KEY ("template_id") REFERENCES "public"."template"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template_version" ADD CONSTRAINT "template_version_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "line" ADD CONSTRAINT "line_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "line" ADD CONSTRAINT "line_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_conversation_id_conversation_id_fk" FOREIGN KEY ("conversation_id") REFERENCES "public"."conversation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_author_id_colleague_id_fk" FOREIGN KEY ("author_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activity_content" ADD CONSTRAINT "activity_content_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activity_on_record" ADD CONSTRAINT "activity_on_record_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "consent_entry_number" ON "consent_entry" USING btree ("e164","at");--> statement-breakpoint
CREATE INDEX "consent_proposal_number" ON "consent_proposal" USING btree ("e164");--> statement-breakpoint
CREATE INDEX "consent_proposal_activity" ON "consent_proposal" USING btree ("activity_id");--> statement-breakpoint
CREATE INDEX "audit_at" ON "audit" USING btree ("at");--> statement-breakpoint
CREATE INDEX "team_member_colleague" ON "team_member" USING btree ("colleague_id");--> statement-breakpoint
CREATE INDEX "job_due" ON "job" USING btree ("due_at") WHERE "job"."done_at" is null;--> statement-breakpoint
CREATE INDEX "job_lane" ON "job" USING btree ("lane","order_at","id") WHERE "job"."done_at" is null;--> statement-breakpoint
CREATE INDEX "phone_record" ON "phone" USING btree ("record_id","position");--> statement-breakpoint
CREATE INDEX "phone_e164" ON "phone" USING btree ("e164");--> statement-breakpoint
CREATE INDEX "record_name" ON "record" USING btree ("module","name" collate "und-x-icu","id");--> statement-breakpoint
CREATE INDEX "record_contact" ON "record" USING btree ("module","last_contact_at","id");--> statement-breakpoint
CREATE INDEX "record_company" ON "record" USING btree ("company_id");--> statement-breakpoint
CREATE INDEX "record_name_words" ON "record" USING gin ("name" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "carrier_event_ref" ON "carrier_event" USING btree ("carrier_ref");--> statement-breakpoint
CREATE INDEX "conversation_waits" ON "conversation" USING btree ("waits_since") WHERE "conversation"."waits_since" is not null;--> statement-breakpoint
CREATE INDEX "conversation_other" ON "conversation" USING btree ("other");--> statement-breakpoint
CREATE INDEX "message_conversation" ON "message" USING btree ("conversation_id","made_at");--> statement-breakpoint
CREATE INDEX "message_unsettled" ON "message" USING btree ("handed_at") WHERE "message"."state" in ('accepted', 'sent');--> statement-breakpoint
CREATE INDEX "activity_on_record_activity" ON "activity_on_record" USING btree ("activity_id");--> statement-breakpoint
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is only added to', TG_TABLE_NAME USING ERRCODE = 'integrity_constraint_violation';
END $$;--> statement-breakpoint
CREATE TRIGGER activity_only_added_to BEFORE UPDATE OR DELETE ON "activity" FOR EACH ROW EXECUTE FUNCTION refuse_change();--> statement-breakpoint
CREATE TRIGGER consent_entry_only_added_to BEFORE UPDATE OR DELETE ON "consent_entry" FOR EACH ROW EXECUTE FUNCTION refuse_change();
