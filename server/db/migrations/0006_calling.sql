CREATE TABLE "call" (
	"id" uuid PRIMARY KEY NOT NULL,
	"direction" text NOT NULL,
	"line_id" uuid NOT NULL,
	"other" text NOT NULL,
	"record_id" uuid,
	"colleague_id" uuid,
	"activity_id" uuid NOT NULL,
	"exchange" text NOT NULL,
	"exchange_ref" text,
	"made_at" timestamp (3) with time zone NOT NULL,
	"ringing_at" timestamp (3) with time zone,
	"answered_at" timestamp (3) with time zone,
	"answered_by" text,
	"ended_at" timestamp (3) with time zone,
	"end_why" text,
	"end_side" text,
	"switches" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"disposition_id" uuid,
	"disposed_at" timestamp (3) with time zone,
	"put_away_at" timestamp (3) with time zone,
	CONSTRAINT "call_activity_id_unique" UNIQUE("activity_id")
);
--> statement-breakpoint
CREATE TABLE "call_effect" (
	"call_id" uuid NOT NULL,
	"round" integer NOT NULL,
	"position" integer NOT NULL,
	"effect" jsonb NOT NULL,
	"words" text NOT NULL,
	"state" text NOT NULL,
	"reason" text,
	"before" jsonb DEFAULT '{}'::jsonb NOT NULL,
	CONSTRAINT "call_effect_call_id_round_position_pk" PRIMARY KEY("call_id","round","position")
);
--> statement-breakpoint
CREATE TABLE "call_event" (
	"exchange" text NOT NULL,
	"id" text NOT NULL,
	"received_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "call_event_exchange_id_pk" PRIMARY KEY("exchange","id")
);
--> statement-breakpoint
CREATE TABLE "disposition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"name" text NOT NULL,
	"family" text NOT NULL,
	"letter" text NOT NULL,
	"position" integer NOT NULL,
	"effects" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"retired_at" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "task" (
	"id" uuid PRIMARY KEY NOT NULL,
	"record_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"title" text NOT NULL,
	"colleague_id" uuid NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"wall_time" text NOT NULL,
	"wall_zone" text NOT NULL,
	"due_at" timestamp (3) with time zone NOT NULL,
	"done_at" timestamp (3) with time zone,
	"call_id" uuid
);
--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_disposition_id_disposition_id_fk" FOREIGN KEY ("disposition_id") REFERENCES "public"."disposition"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_effect" ADD CONSTRAINT "call_effect_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "call_ref" ON "call" USING btree ("exchange","exchange_ref");--> statement-breakpoint
CREATE INDEX "call_open" ON "call" USING btree ("colleague_id","made_at") WHERE "call"."disposed_at" is null and "call"."put_away_at" is null;--> statement-breakpoint
CREATE INDEX "task_record" ON "task" USING btree ("record_id","due_at") WHERE "task"."done_at" is null;--> statement-breakpoint
CREATE INDEX "task_due" ON "task" USING btree ("colleague_id","due_at") WHERE "task"."done_at" is null;