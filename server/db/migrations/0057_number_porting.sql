CREATE TABLE "number_porting" (
	"line_id" uuid PRIMARY KEY NOT NULL,
	"from_carrier" text NOT NULL,
	"account" text NOT NULL,
	"wished_day" text NOT NULL,
	"state" text NOT NULL,
	"day" text,
	"words" text DEFAULT '' NOT NULL,
	"asked_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "number_porting_state_known" CHECK ("number_porting"."state" in ('asked', 'sent-back', 'agreed'))
);
--> statement-breakpoint
ALTER TABLE "number_porting" ADD CONSTRAINT "number_porting_line_id_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."line"("id") ON DELETE no action ON UPDATE no action;