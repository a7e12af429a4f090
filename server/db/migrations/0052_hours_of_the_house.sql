CREATE TABLE "closed_day" (
	"id" uuid PRIMARY KEY NOT NULL,
	"place" text,
	"day" date NOT NULL,
	"name" text NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "holiday_country" (
	"country" text PRIMARY KEY NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "place_hours" (
	"place" text PRIMARY KEY NOT NULL,
	"week" jsonb,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "round_person" DROP CONSTRAINT "round_person_reason_known";--> statement-breakpoint
DROP INDEX "bulk_person_next";--> statement-breakpoint
ALTER TABLE "bulk_group" ADD COLUMN "places" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "bulk_person" ADD COLUMN "places" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "closed_day" ADD CONSTRAINT "closed_day_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "holiday_country" ADD CONSTRAINT "holiday_country_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "place_hours" ADD CONSTRAINT "place_hours_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_person_next" ON "bulk_person" USING btree ("bulk_id","line_id","zones","places","wish_from","wish_to","position") WHERE "bulk_person"."standing" = 'ready';--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_reason_known" CHECK ("round_person"."reason" in ('no-number', 'no-calls', 'night', 'closed-day', 'place-hours', 'wish', 'zone-unknown', 'called-lately'));