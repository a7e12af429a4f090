CREATE TABLE "knock" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"conversation_id" uuid,
	"task_id" uuid,
	"about_id" uuid NOT NULL,
	"once" text,
	"words" text DEFAULT '' NOT NULL,
	"times" integer DEFAULT 1 NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"step" text NOT NULL,
	"goes_on_at" timestamp (3) with time zone,
	"taken_by" uuid,
	"ended_at" timestamp (3) with time zone,
	CONSTRAINT "knock_once_unique" UNIQUE("once"),
	CONSTRAINT "knock_kind_known" CHECK ("knock"."kind" in ('question', 'second-missed-call', 'hot-answer', 'call-back-due', 'waits-too-long')),
	CONSTRAINT "knock_step_known" CHECK ("knock"."step" in ('owner', 'stand-in', 'lead'))
);
--> statement-breakpoint
CREATE TABLE "knock_for" (
	"knock_id" uuid NOT NULL,
	"colleague_id" uuid NOT NULL,
	"step" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"seen_at" timestamp (3) with time zone,
	CONSTRAINT "knock_for_colleague_id_knock_id_pk" PRIMARY KEY("colleague_id","knock_id"),
	CONSTRAINT "knock_for_step_known" CHECK ("knock_for"."step" in ('owner', 'stand-in', 'lead'))
);
--> statement-breakpoint
CREATE TABLE "mailed_wait" (
	"colleague_id" uuid NOT NULL,
	"conversation_id" uuid NOT NULL,
	"since" timestamp (3) with time zone NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "mailed_wait_colleague_id_conversation_id_since_pk" PRIMARY KEY("colleague_id","conversation_id","since")
);
--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "knocks_off" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "mail_minutes" smallint;--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "stand_in_id" uuid;--> statement-breakpoint
ALTER TABLE "firm" ADD COLUMN "knock_minutes" smallint DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "firm" ADD COLUMN "waits_minutes" smallint DEFAULT 30;--> statement-breakpoint
ALTER TABLE "firm" ADD COLUMN "hot_tags" jsonb DEFAULT '["hot"]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "knock" ADD CONSTRAINT "knock_conversation_id_conversation_id_fk" FOREIGN KEY ("conversation_id") REFERENCES "public"."conversation"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "knock" ADD CONSTRAINT "knock_task_id_task_id_fk" FOREIGN KEY ("task_id") REFERENCES "public"."task"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "knock" ADD CONSTRAINT "knock_taken_by_colleague_id_fk" FOREIGN KEY ("taken_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "knock_for" ADD CONSTRAINT "knock_for_knock_id_knock_id_fk" FOREIGN KEY ("knock_id") REFERENCES "public"."knock"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "knock_for" ADD CONSTRAINT "knock_for_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mailed_wait" ADD CONSTRAINT "mailed_wait_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mailed_wait" ADD CONSTRAINT "mailed_wait_conversation_id_conversation_id_fk" FOREIGN KEY ("conversation_id") REFERENCES "public"."conversation"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "knock_open" ON "knock" USING btree ("kind","about_id") WHERE "knock"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "knock_goes_on" ON "knock" USING btree ("goes_on_at") WHERE "knock"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "knock_conversation" ON "knock" USING btree ("conversation_id") WHERE "knock"."conversation_id" is not null;--> statement-breakpoint
CREATE INDEX "knock_task" ON "knock" USING btree ("task_id") WHERE "knock"."task_id" is not null;--> statement-breakpoint
CREATE INDEX "knock_ended" ON "knock" USING btree ("ended_at") WHERE "knock"."ended_at" is not null;--> statement-breakpoint
CREATE INDEX "knock_for_knock" ON "knock_for" USING btree ("knock_id");--> statement-breakpoint
CREATE INDEX "mailed_wait_at" ON "mailed_wait" USING btree ("at");--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_stand_in_id_colleague_id_fk" FOREIGN KEY ("stand_in_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "call_back_due" ON "task" USING btree ("due_at") WHERE "task"."done_at" is null and "task"."kind" = 'call-back';