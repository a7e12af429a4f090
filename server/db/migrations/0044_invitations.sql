CREATE TABLE "invitation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"key_hash" text NOT NULL,
	"colleague_id" uuid,
	"mail" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"title" text NOT NULL,
	"team_ids" jsonb NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"ends_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "invitation_key_hash_unique" UNIQUE("key_hash"),
	CONSTRAINT "invitation_role_known" CHECK ("invitation"."role" in ('rep', 'lead', 'admin'))
);
--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "invitation_ends" ON "invitation" USING btree ("ends_at");