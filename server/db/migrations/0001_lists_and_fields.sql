CREATE TABLE "bulk_change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"colleague_id" uuid NOT NULL,
	"change" jsonb NOT NULL,
	"record_ids" uuid[] NOT NULL,
	"state" text NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"changed" integer DEFAULT 0 NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"ended_at" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "bulk_change_before" (
	"bulk_id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"before" jsonb NOT NULL,
	CONSTRAINT "bulk_change_before_bulk_id_record_id_pk" PRIMARY KEY("bulk_id","record_id")
);
--> statement-breakpoint
CREATE TABLE "view" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"name" text NOT NULL,
	"owner_id" uuid NOT NULL,
	"team_id" uuid,
	"columns" text[] NOT NULL,
	"conditions" json NOT NULL,
	"sort" text NOT NULL,
	"direction" text NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "custom_field" ADD COLUMN "options" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "custom_field" ADD COLUMN "retired_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "tags" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_change" ADD CONSTRAINT "bulk_change_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_change_before" ADD CONSTRAINT "bulk_change_before_bulk_id_bulk_change_id_fk" FOREIGN KEY ("bulk_id") REFERENCES "public"."bulk_change"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bulk_change_before" ADD CONSTRAINT "bulk_change_before_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "view" ADD CONSTRAINT "view_owner_id_colleague_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "view" ADD CONSTRAINT "view_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "phone_digits" ON "phone" USING gin ("e164" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "record_contact_down" ON "record" USING btree ("module","last_contact_at" desc nulls last,"id");--> statement-breakpoint
CREATE INDEX "record_made" ON "record" USING btree ("module","made_at","id");--> statement-breakpoint
CREATE INDEX "record_tags" ON "record" USING gin ("tags");--> statement-breakpoint
CREATE INDEX "record_mail_words" ON "record" USING gin ("mail" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "activity_content_words" ON "activity_content" USING gin (to_tsvector('simple', coalesce("words", '')));