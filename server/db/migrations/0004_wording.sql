CREATE TABLE "template_mine" (
	"colleague_id" uuid NOT NULL,
	"template_id" uuid NOT NULL,
	"favourite" boolean DEFAULT false NOT NULL,
	"times" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "template_mine_colleague_id_template_id_pk" PRIMARY KEY("colleague_id","template_id")
);
--> statement-breakpoint
CREATE TABLE "draft" (
	"colleague_id" uuid NOT NULL,
	"key" text NOT NULL,
	"text" text NOT NULL,
	"template_id" uuid,
	"template_version" integer,
	"ref" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "draft_colleague_id_key_pk" PRIMARY KEY("colleague_id","key")
);
--> statement-breakpoint
ALTER TABLE "template" ADD COLUMN "description" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "template" ADD COLUMN "folder" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "template" ADD COLUMN "fill_ins" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "template" ADD COLUMN "audience" text DEFAULT 'all' NOT NULL;--> statement-breakpoint
ALTER TABLE "template" ADD COLUMN "team_id" uuid;--> statement-breakpoint
ALTER TABLE "template" ADD COLUMN "retired_at" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "template_version" ADD COLUMN "fill_ins" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "ref" text;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "wall_time" text;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "wall_zone" text;--> statement-breakpoint
ALTER TABLE "template_mine" ADD CONSTRAINT "template_mine_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template_mine" ADD CONSTRAINT "template_mine_template_id_template_id_fk" FOREIGN KEY ("template_id") REFERENCES "public"."template"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "draft" ADD CONSTRAINT "draft_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "template_mine_template" ON "template_mine" USING btree ("template_id");--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "message_template" ON "message" USING btree ("template_id","template_version") WHERE "message"."template_id" is not null;--> statement-breakpoint
CREATE INDEX "message_scheduled" ON "message" USING btree ("leaves_at") WHERE "message"."wall_time" is not null and "message"."state" = 'waiting';--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_ref_unique" UNIQUE("ref");