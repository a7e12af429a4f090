ALTER TABLE "message" DROP CONSTRAINT "message_carrier_ref_unique";--> statement-breakpoint
DROP INDEX "carrier_event_ref";--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "carrier" text;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "accepted_at" timestamp (3) with time zone;--> statement-breakpoint
CREATE INDEX "carrier_event_ref" ON "carrier_event" USING btree ("carrier","carrier_ref");--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_carrier_ref" UNIQUE("carrier","carrier_ref");--> statement-breakpoint
UPDATE "message" m SET "carrier" = l."carrier" FROM "conversation" v JOIN "line" l ON l."id" = v."line_id" WHERE v."id" = m."conversation_id" AND (m."direction" = 'in' OR m."handed_at" IS NOT NULL);--> statement-breakpoint
UPDATE "message" SET "accepted_at" = "handed_at" WHERE "cost_micros" IS NOT NULL;
