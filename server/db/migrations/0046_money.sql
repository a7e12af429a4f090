CREATE TABLE "money_account" (
	"currency" text PRIMARY KEY NOT NULL,
	"prepaid" boolean DEFAULT false NOT NULL,
	"balance_micros" bigint DEFAULT 0 NOT NULL,
	"held_micros" bigint DEFAULT 0 NOT NULL,
	"warn_days" smallint DEFAULT 7 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "money_ask" (
	"id" uuid PRIMARY KEY NOT NULL,
	"colleague_id" uuid NOT NULL,
	"currency" text NOT NULL,
	"why" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"settled_at" timestamp (3) with time zone,
	"settled_by" uuid
);
--> statement-breakpoint
CREATE TABLE "money_entry" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"kind" text NOT NULL,
	"currency" text NOT NULL,
	"micros" bigint NOT NULL,
	"message_id" uuid,
	"line_id" uuid,
	"colleague_id" uuid,
	"entered_by" uuid,
	"words" text DEFAULT '' NOT NULL,
	CONSTRAINT "money_entry_kind_known" CHECK ("money_entry"."kind" in ('paid-in', 'text', 'correction'))
);
--> statement-breakpoint
CREATE TABLE "money_hold" (
	"message_id" uuid PRIMARY KEY NOT NULL,
	"currency" text NOT NULL,
	"micros" bigint NOT NULL,
	"colleague_id" uuid,
	"line_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "money_limit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"colleague_id" uuid,
	"team_id" uuid,
	"period" text NOT NULL,
	"currency" text NOT NULL,
	"micros" bigint NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "money_limit_once" UNIQUE NULLS NOT DISTINCT("colleague_id","team_id","period","currency"),
	CONSTRAINT "money_limit_period_known" CHECK ("money_limit"."period" in ('day', 'month')),
	CONSTRAINT "money_limit_whose" CHECK (("money_limit"."colleague_id" is null) <> ("money_limit"."team_id" is null))
);
--> statement-breakpoint
DROP INDEX "smpp_received_part_at";--> statement-breakpoint
ALTER TABLE "money_ask" ADD CONSTRAINT "money_ask_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_ask" ADD CONSTRAINT "money_ask_settled_by_colleague_id_fk" FOREIGN KEY ("settled_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_message_id_message_id_fk" FOREIGN KEY ("message_id") REFERENCES "public"."message"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_entered_by_colleague_id_fk" FOREIGN KEY ("entered_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_hold" ADD CONSTRAINT "money_hold_message_id_message_id_fk" FOREIGN KEY ("message_id") REFERENCES "public"."message"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_hold" ADD CONSTRAINT "money_hold_currency_money_account_currency_fk" FOREIGN KEY ("currency") REFERENCES "public"."money_account"("currency") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_hold" ADD CONSTRAINT "money_hold_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_hold" ADD CONSTRAINT "money_hold_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_limit" ADD CONSTRAINT "money_limit_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_limit" ADD CONSTRAINT "money_limit_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "money_limit" ADD CONSTRAINT "money_limit_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "money_ask_open" ON "money_ask" USING btree ("colleague_id","currency") WHERE "money_ask"."settled_at" is null;--> statement-breakpoint
CREATE INDEX "money_entry_at" ON "money_entry" USING btree ("at","id");--> statement-breakpoint
CREATE INDEX "money_entry_colleague" ON "money_entry" USING btree ("colleague_id","at");--> statement-breakpoint
CREATE INDEX "money_entry_line" ON "money_entry" USING btree ("line_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "money_entry_text_once" ON "money_entry" USING btree ("message_id") WHERE "money_entry"."kind" = 'text';--> statement-breakpoint
CREATE INDEX "money_entry_correction" ON "money_entry" USING btree ("message_id") WHERE "money_entry"."kind" = 'correction';--> statement-breakpoint
CREATE INDEX "money_limit_team" ON "money_limit" USING btree ("team_id") WHERE "money_limit"."team_id" is not null;--> statement-breakpoint
INSERT INTO "money_account" ("currency") SELECT "currency" FROM "carrier_price" UNION SELECT "currency" FROM "message" WHERE "currency" IS NOT NULL AND "cost_micros" IS NOT NULL;--> statement-breakpoint
INSERT INTO "money_entry" ("id", "at", "kind", "currency", "micros", "message_id", "line_id", "colleague_id")
SELECT gen_random_uuid(), coalesce(m."accepted_at", m."made_at"), 'text', m."currency", -m."cost_micros", m."id", v."line_id", m."author_id"
FROM "message" m JOIN "conversation" v ON v."id" = m."conversation_id"
WHERE m."direction" = 'out' AND m."cost_micros" IS NOT NULL AND m."currency" IS NOT NULL;--> statement-breakpoint
UPDATE "money_account" a SET "balance_micros" = e."micros" FROM (SELECT "currency", sum("micros")::bigint AS "micros" FROM "money_entry" GROUP BY "currency") e WHERE e."currency" = a."currency";
