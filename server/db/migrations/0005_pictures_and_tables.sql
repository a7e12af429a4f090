CREATE TABLE "picture" (
	"id" uuid PRIMARY KEY NOT NULL,
	"colleague_id" uuid NOT NULL,
	"message_id" uuid,
	"type" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "carrier_price" ADD COLUMN "micros_per_picture" integer;--> statement-breakpoint
ALTER TABLE "carrier_price" ADD COLUMN "most_pictures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "carrier_price" ADD COLUMN "most_picture_bytes" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "draft" ADD COLUMN "picture_ids" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "languages" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "shift" text;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "pictures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "picture_message" ON "picture" USING btree ("message_id") WHERE "picture"."message_id" is not null;--> statement-breakpoint
CREATE INDEX "picture_unsent" ON "picture" USING btree ("colleague_id","at") WHERE "picture"."message_id" is null;