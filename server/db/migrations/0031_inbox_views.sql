CREATE TABLE "inbox_view" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"owner_id" uuid NOT NULL,
	"team_id" uuid,
	"asked" jsonb NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "inbox_view" ADD CONSTRAINT "inbox_view_owner_id_colleague_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "inbox_view" ADD CONSTRAINT "inbox_view_team_id_team_id_fk" FOREIGN KEY ("team_id") REFERENCES "public"."team"("id") ON DELETE no action ON UPDATE no action;