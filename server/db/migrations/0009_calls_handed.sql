CREATE TABLE "own_phone" (
	"colleague_id" uuid NOT NULL,
	"e164" text NOT NULL,
	"label" text NOT NULL,
	"position" smallint NOT NULL,
	CONSTRAINT "own_phone_colleague_id_e164_pk" PRIMARY KEY("colleague_id","e164")
);
--> statement-breakpoint
CREATE TABLE "spoken_message" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"owner_id" uuid NOT NULL,
	"team_id" uuid,
	"words" text NOT NULL,
	"ms" integer NOT NULL,
	"peaks" jsonb NOT NULL,
	"sound" "bytea" NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"retired_at" timestamp (3) with time zone
);
--> statement-breakpoint
CREATE TABLE "call_handing" (
	"id" uuid PRIMARY KEY NOT NULL,
	"call_id" uuid NOT NULL,
	"from_id" uuid NOT NULL,
	"to_id" uuid NOT NULL,
	"way" text NOT NULL,
	"state" text NOT NULL,
	"asked_at" timestamp (3) with time zone NOT NULL,
	"taken_at" timestamp (3) with time zone,
	"ended_at" timestamp (3) with time zone
);
--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "calls_with" text DEFAULT 'browser' NOT NULL;--> statement-breakpoint
ALTER TABLE "firm" ADD COLUMN "take_back_seconds" smallint DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "own_ringing_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "own_answered_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "spoken" jsonb;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "leaving_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "left_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "rating" smallint;--> statement-breakpoint
ALTER TABLE "disposition" ADD COLUMN "colour" text DEFAULT 'mulberry' NOT NULL;--> statement-breakpoint
ALTER TABLE "own_phone" ADD CONSTRAINT "own_phone_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spoken_message" ADD CONSTRAINT "spoken_message_owner_id_colleague_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "spoken_message" ADD CONSTRAINT "spoken_message_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_handing" ADD CONSTRAINT "call_handing_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_handing" ADD CONSTRAINT "call_handing_from_id_colleague_id_fk" FOREIGN KEY ("from_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_handing" ADD CONSTRAINT "call_handing_to_id_colleague_id_fk" FOREIGN KEY ("to_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "spoken_message_owner" ON "spoken_message" USING btree ("owner_id");--> statement-breakpoint
CREATE INDEX "call_handing_of" ON "call_handing" USING btree ("call_id","asked_at");--> statement-breakpoint
CREATE UNIQUE INDEX "call_handing_open" ON "call_handing" USING btree ("call_id") WHERE "call_handing"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "call_handing_to" ON "call_handing" USING btree ("to_id") WHERE "call_handing"."ended_at" is null;--> statement-breakpoint
UPDATE "disposition" SET "colour" = 'slate' WHERE "family" = 'not-reached';
