ALTER TABLE "money_entry" DROP CONSTRAINT "money_entry_kind_known";--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "state" text DEFAULT 'active' NOT NULL;--> statement-breakpoint
UPDATE "line" SET "state" = 'paused' WHERE NOT "active";--> statement-breakpoint
ALTER TABLE "line" DROP COLUMN "active";--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "active" boolean GENERATED ALWAYS AS (state in ('active', 'ending')) STORED NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "turns_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "rent_micros" bigint;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "rent_currency" text;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "told_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "money_entry" ADD CONSTRAINT "money_entry_kind_known" CHECK ("money_entry"."kind" in ('paid-in', 'text', 'rent', 'correction'));--> statement-breakpoint
ALTER TABLE "line" ADD CONSTRAINT "line_state_known" CHECK ("line"."state" in ('ordered', 'active', 'paused', 'ending', 'ended'));
