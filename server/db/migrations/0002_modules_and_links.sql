CREATE TABLE "pipeline" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"name" text NOT NULL,
	"stages" text[] NOT NULL,
	"over" text[] DEFAULT '{}' NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "record_person" (
	"record_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"stage" text,
	"stage_since" timestamp (3) with time zone,
	"made_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "record_person_record_id_person_id_pk" PRIMARY KEY("record_id","person_id")
);
--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "pipeline_id" uuid;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "stage_since" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "over" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "about_id" uuid;--> statement-breakpoint
ALTER TABLE "record_person" ADD CONSTRAINT "record_person_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_person" ADD CONSTRAINT "record_person_person_id_record_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "record_person_person" ON "record_person" USING btree ("person_id");--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_pipeline_id_pipeline_id_fk" FOREIGN KEY ("pipeline_id") REFERENCES "public"."pipeline"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "record_about" ON "record" USING btree ("about_id") WHERE "record"."about_id" is not null;--> statement-breakpoint
CREATE INDEX "record_pipeline" ON "record" USING btree ("pipeline_id","stage") WHERE "record"."pipeline_id" is not null;--> statement-breakpoint
INSERT INTO "pipeline" ("id", "module", "name", "stages", "over", "position") VALUES
	('0192f000-0000-7000-8000-000000000001', 'deal', 'Sales', '{"New","Talking","Offer","Won","Lost"}', '{"Won","Lost"}', 0),
	('0192f000-0000-7000-8000-000000000002', 'job', 'Hiring', '{"Applied","Talking","Trial shift","Offer","Hired","Not taken"}', '{"Hired","Not taken"}', 0);
