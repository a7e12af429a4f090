CREATE TABLE "conversation_event" (
	"conversation_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"activity_id" uuid NOT NULL,
	CONSTRAINT "conversation_event_conversation_id_at_activity_id_pk" PRIMARY KEY("conversation_id","at","activity_id"),
	CONSTRAINT "conversation_event_activity_id_unique" UNIQUE("activity_id")
);
--> statement-breakpoint
CREATE TABLE "conversation_seen" (
	"colleague_id" uuid NOT NULL,
	"conversation_id" uuid NOT NULL,
	"seen_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "conversation_seen_colleague_id_conversation_id_pk" PRIMARY KEY("colleague_id","conversation_id")
);
--> statement-breakpoint
ALTER TABLE "activity" DROP CONSTRAINT "activity_kind_known";--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "sees_from" timestamp (3) with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "chimes" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "notifies" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "conversation" ADD COLUMN "waits_for" text;--> statement-breakpoint
UPDATE "conversation" SET "waits_for" = 'text' WHERE "waits_since" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "conversation" ADD COLUMN "returns_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "conversation" ADD COLUMN "assignee_id" uuid;--> statement-breakpoint
ALTER TABLE "conversation_event" ADD CONSTRAINT "conversation_event_conversation_id_conversation_id_fk" FOREIGN KEY ("conversation_id") REFERENCES "public"."conversation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conversation_event" ADD CONSTRAINT "conversation_event_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conversation_seen" ADD CONSTRAINT "conversation_seen_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conversation_seen" ADD CONSTRAINT "conversation_seen_conversation_id_conversation_id_fk" FOREIGN KEY ("conversation_id") REFERENCES "public"."conversation"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_assignee_id_colleague_id_fk" FOREIGN KEY ("assignee_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "conversation_newest" ON "conversation" USING btree ("line_id","last_at","id");--> statement-breakpoint
CREATE INDEX "conversation_assignee" ON "conversation" USING btree ("assignee_id") WHERE "conversation"."assignee_id" is not null;--> statement-breakpoint
CREATE INDEX "message_newest" ON "message" USING btree ("made_at","id");--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_kind_known" CHECK ("activity"."kind" in ('text-out', 'text-in', 'note', 'record-made', 'fields-changed', 'stage-changed', 'put-on', 'moved-on', 'taken-off', 'consent-changed', 'call-out', 'call-in', 'task-made', 'task-done', 'task-again', 'task-changed', 'task-withdrawn', 'nothing-needed', 'put-back', 'assigned'));--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_waits_for_known" CHECK ("conversation"."waits_for" in ('text', 'put-back', 'handed'));--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_waits_why" CHECK (("conversation"."waits_since" is null) = ("conversation"."waits_for" is null));