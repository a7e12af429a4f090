CREATE TABLE "known_device" (
	"token_hash" text NOT NULL,
	"colleague_id" uuid NOT NULL,
	"used_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "known_device_token_hash_colleague_id_pk" PRIMARY KEY("token_hash","colleague_id")
);
--> statement-breakpoint
CREATE TABLE "set_aside_event" (
	"id" uuid PRIMARY KEY NOT NULL,
	"teller" text NOT NULL,
	"hash" text NOT NULL,
	"told" text NOT NULL,
	"why" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"settled_at" timestamp (3) with time zone,
	"settled_by" uuid,
	CONSTRAINT "set_aside_event_once" UNIQUE("teller","hash")
);
--> statement-breakpoint
DROP INDEX "job_due";--> statement-breakpoint
DROP INDEX "job_lane";--> statement-breakpoint
ALTER TABLE "sign_in" ADD COLUMN "id" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "sign_in" ADD COLUMN "device" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "sign_in" ADD COLUMN "address" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "set_at" timestamp (3) with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "by_the_clock" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "failures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "last_failure" text;--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "dead_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "trying_since" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "activity_on_record" ADD COLUMN "along_line_id" uuid;--> statement-breakpoint
ALTER TABLE "known_device" ADD CONSTRAINT "known_device_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "set_aside_event" ADD CONSTRAINT "set_aside_event_settled_by_colleague_id_fk" FOREIGN KEY ("settled_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "set_aside_event_open" ON "set_aside_event" USING btree ("at") WHERE "set_aside_event"."settled_at" is null;--> statement-breakpoint
CREATE INDEX "sign_in_colleague" ON "sign_in" USING btree ("colleague_id");--> statement-breakpoint
CREATE INDEX "job_dead" ON "job" USING btree ("dead_at") WHERE "job"."dead_at" is not null and "job"."done_at" is null;--> statement-breakpoint
CREATE INDEX "job_due" ON "job" USING btree ("due_at") WHERE "job"."done_at" is null and "job"."dead_at" is null;--> statement-breakpoint
CREATE INDEX "job_lane" ON "job" USING btree ("lane","order_at","id") WHERE "job"."done_at" is null and "job"."dead_at" is null;--> statement-breakpoint
ALTER TABLE "sign_in" ADD CONSTRAINT "sign_in_id_unique" UNIQUE("id");--> statement-breakpoint
UPDATE "job" SET "by_the_clock" = true FROM "message" WHERE "message"."wall_time" IS NOT NULL AND "message"."state" = 'waiting' AND "job"."key" = 'hand-over ' || "message"."id"::text AND "job"."done_at" IS NULL;--> statement-breakpoint
-- what came along with a number before: entries that are older than the record they show on, and that were with another one
UPDATE "activity_on_record" s SET "along_line_id" = coalesce(v."line_id", c."line_id")
FROM "activity" a
LEFT JOIN "message" m ON m."id" = a."message_id"
LEFT JOIN "conversation" v ON v."id" = m."conversation_id"
LEFT JOIN "call" c ON c."activity_id" = a."id"
WHERE a."id" = s."activity_id" AND s."via_record_id" IS NULL AND (v."line_id" IS NOT NULL OR c."line_id" IS NOT NULL)
  AND EXISTS (SELECT 1 FROM "record" r WHERE r."id" = s."record_id" AND r."made_at" > s."at")
  AND EXISTS (SELECT 1 FROM "activity_on_record" o JOIN "record" w ON w."id" = o."record_id" WHERE o."activity_id" = s."activity_id" AND o."via_record_id" IS NULL AND o."record_id" <> s."record_id" AND w."made_at" <= o."at");
