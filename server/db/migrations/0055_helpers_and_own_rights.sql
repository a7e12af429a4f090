CREATE TABLE "person_right" (
	"colleague_id" uuid NOT NULL,
	"permission" text NOT NULL,
	"scope" text NOT NULL,
	"changed_by" uuid NOT NULL,
	"changed_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "person_right_colleague_id_permission_pk" PRIMARY KEY("colleague_id","permission"),
	CONSTRAINT "person_right_scope_known" CHECK ("person_right"."scope" in ('none', 'own', 'team', 'people', 'all'))
);
--> statement-breakpoint
ALTER TABLE "colleague" DROP CONSTRAINT "colleague_role_known";--> statement-breakpoint
ALTER TABLE "invitation" DROP CONSTRAINT "invitation_role_known";--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "helps_until" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "invitation" ADD COLUMN "helps_until" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "person_right" ADD CONSTRAINT "person_right_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person_right" ADD CONSTRAINT "person_right_changed_by_colleague_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_helps_until" CHECK (("colleague"."role" = 'helper') = ("colleague"."helps_until" is not null));--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_role_known" CHECK ("colleague"."role" in ('rep', 'lead', 'admin', 'helper'));--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_role_known" CHECK ("invitation"."role" in ('rep', 'lead', 'admin', 'helper'));