CREATE TABLE "terms_accepted" (
	"version" integer NOT NULL,
	"colleague_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "terms_accepted_colleague_id_version_pk" PRIMARY KEY("colleague_id","version")
);
--> statement-breakpoint
CREATE TABLE "terms_version" (
	"version" integer PRIMARY KEY NOT NULL,
	"words" text NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "terms_accepted" ADD CONSTRAINT "terms_accepted_version_terms_version_version_fk" FOREIGN KEY ("version") REFERENCES "public"."terms_version"("version") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terms_accepted" ADD CONSTRAINT "terms_accepted_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "terms_version" ADD CONSTRAINT "terms_version_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;