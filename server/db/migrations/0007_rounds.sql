CREATE TABLE "call_round" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"module" text NOT NULL,
	"team_id" uuid,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"order" text NOT NULL,
	"pause_seconds" integer,
	"not_within_hours" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "round_colleague" (
	"round_id" uuid NOT NULL,
	"colleague_id" uuid NOT NULL,
	"joined_at" timestamp (3) with time zone NOT NULL,
	"left_at" timestamp (3) with time zone,
	CONSTRAINT "round_colleague_round_id_colleague_id_pk" PRIMARY KEY("round_id","colleague_id")
);
--> statement-breakpoint
CREATE TABLE "round_person" (
	"round_id" uuid NOT NULL,
	"record_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"turn" integer DEFAULT 0 NOT NULL,
	"zones" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"colleague_id" uuid,
	"held_until" timestamp (3) with time zone,
	"reason" text,
	"not_before" timestamp (3) with time zone,
	"call_id" uuid,
	"number" text,
	"changed_at" timestamp (3) with time zone,
	CONSTRAINT "round_person_round_id_record_id_pk" PRIMARY KEY("round_id","record_id")
);
--> statement-breakpoint
ALTER TABLE "call_round" ADD CONSTRAINT "call_round_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_round" ADD CONSTRAINT "call_round_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_colleague" ADD CONSTRAINT "round_colleague_round_id_call_round_id_fk" FOREIGN KEY ("round_id") REFERENCES "public"."call_round"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_colleague" ADD CONSTRAINT "round_colleague_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_round_id_call_round_id_fk" FOREIGN KEY ("round_id") REFERENCES "public"."call_round"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "call_round_made" ON "call_round" USING btree ("made_at");--> statement-breakpoint
CREATE UNIQUE INDEX "round_colleague_on" ON "round_colleague" USING btree ("colleague_id") WHERE "round_colleague"."left_at" is null;--> statement-breakpoint
CREATE INDEX "round_person_due" ON "round_person" USING btree ("round_id","turn","position") WHERE "round_person"."state" in ('waiting', 'held');--> statement-breakpoint
CREATE INDEX "round_person_hand" ON "round_person" USING btree ("colleague_id") WHERE "round_person"."state" = 'held';--> statement-breakpoint
CREATE INDEX "round_person_call" ON "round_person" USING btree ("call_id");--> statement-breakpoint
CREATE UNIQUE INDEX "round_person_number" ON "round_person" USING btree ("round_id","number") WHERE "round_person"."state" = 'called';--> statement-breakpoint
CREATE INDEX "call_other" ON "call" USING btree ("other","made_at");