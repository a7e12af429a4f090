CREATE TABLE "right_change" (
	"role" text NOT NULL,
	"permission" text NOT NULL,
	"scope" text NOT NULL,
	"changed_by" uuid NOT NULL,
	"changed_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "right_change_role_permission_pk" PRIMARY KEY("role","permission"),
	CONSTRAINT "right_change_role_known" CHECK ("right_change"."role" in ('rep', 'lead')),
	CONSTRAINT "right_change_scope_known" CHECK ("right_change"."scope" in ('none', 'own', 'team', 'people', 'all'))
);
--> statement-breakpoint
ALTER TABLE "right_change" ADD CONSTRAINT "right_change_changed_by_colleague_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;