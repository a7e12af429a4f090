CREATE TABLE "text_message" (
	"message_id" uuid PRIMARY KEY NOT NULL,
	"encoding" text NOT NULL,
	"shift" text,
	"units" integer NOT NULL,
	"parts" integer NOT NULL,
	"confirms_opt_out" boolean DEFAULT false NOT NULL,
	CONSTRAINT "text_message_encoding_known" CHECK ("text_message"."encoding" in ('GSM-7', 'UCS-2'))
);
--> statement-breakpoint
ALTER TABLE "message" DROP CONSTRAINT "message_encoding_known";--> statement-breakpoint
ALTER TABLE "conversation" ALTER COLUMN "line_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "conversation" ADD COLUMN "kind" text DEFAULT 'text' NOT NULL;--> statement-breakpoint
ALTER TABLE "conversation" ALTER COLUMN "kind" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "kind" text DEFAULT 'text' NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ALTER COLUMN "kind" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "text_message" ADD CONSTRAINT "text_message_message_id_message_id_fk" FOREIGN KEY ("message_id") REFERENCES "public"."message"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- whatever there is, is a text
INSERT INTO "text_message" ("message_id", "encoding", "shift", "units", "parts", "confirms_opt_out")
	SELECT "id", "encoding", "shift", "units", "parts", "confirms_opt_out" FROM "message";--> statement-breakpoint
ALTER TABLE "message" DROP COLUMN "confirms_opt_out";--> statement-breakpoint
ALTER TABLE "message" DROP COLUMN "encoding";--> statement-breakpoint
ALTER TABLE "message" DROP COLUMN "shift";--> statement-breakpoint
ALTER TABLE "message" DROP COLUMN "units";--> statement-breakpoint
ALTER TABLE "message" DROP COLUMN "parts";--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_kind_known" CHECK ("conversation"."kind" in ('text'));--> statement-breakpoint
ALTER TABLE "conversation" ADD CONSTRAINT "conversation_text_line" CHECK (("conversation"."kind" = 'text') = ("conversation"."line_id" is not null));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_kind_known" CHECK ("message"."kind" in ('text'));