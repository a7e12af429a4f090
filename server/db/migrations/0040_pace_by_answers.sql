CREATE TABLE "bulk_pace" (
	"bulk_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"what" text NOT NULL,
	"waiting" integer NOT NULL,
	"an_hour" integer,
	CONSTRAINT "bulk_pace_bulk_id_at_pk" PRIMARY KEY("bulk_id","at"),
	CONSTRAINT "bulk_pace_what_known" CHECK ("bulk_pace"."what" in ('waits', 'goes-on', 'set'))
);
--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "brought" jsonb;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "answers_an_hour" integer;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "waits_since" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "bulk_text" ADD COLUMN "answers_looked_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "new_since" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "bulk_pace" ADD CONSTRAINT "bulk_pace_bulk_id_bulk_text_id_fk" FOREIGN KEY ("bulk_id") REFERENCES "public"."bulk_text"("id") ON DELETE cascade ON UPDATE no action;