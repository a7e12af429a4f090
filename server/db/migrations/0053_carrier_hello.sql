ALTER TABLE "carrier_account" DROP CONSTRAINT "carrier_account_kind_known";--> statement-breakpoint
ALTER TABLE "carrier_account" ADD COLUMN "hello" text;--> statement-breakpoint
ALTER TABLE "carrier_account" ADD CONSTRAINT "carrier_account_kind_known" CHECK ("carrier_account"."kind" in ('smpp', 'http'));