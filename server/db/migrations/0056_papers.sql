CREATE TABLE "firm_papers" (
	"id" smallint PRIMARY KEY DEFAULT 1 NOT NULL,
	"papers" jsonb NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"changed_by" uuid NOT NULL,
	"changed_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "paper_file" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"added_by" uuid NOT NULL,
	"added_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "registration" (
	"id" uuid PRIMARY KEY NOT NULL,
	"carrier" text NOT NULL,
	"country" text NOT NULL,
	"state" text NOT NULL,
	"papers" jsonb NOT NULL,
	"ref" text,
	"handed_at" timestamp (3) with time zone NOT NULL,
	"answered_at" timestamp (3) with time zone,
	"least_days" smallint NOT NULL,
	"most_days" smallint NOT NULL,
	CONSTRAINT "registration_once" UNIQUE("carrier","country"),
	CONSTRAINT "registration_state_known" CHECK ("registration"."state" in ('handed-in', 'asked-back', 'accepted', 'refused')),
	CONSTRAINT "registration_days" CHECK (0 <= "registration"."least_days" and "registration"."least_days" <= "registration"."most_days"),
	CONSTRAINT "registration_answered" CHECK (("registration"."state" = 'handed-in') = ("registration"."answered_at" is null))
);
--> statement-breakpoint
CREATE TABLE "registration_step" (
	"id" uuid PRIMARY KEY NOT NULL,
	"registration_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"kind" text NOT NULL,
	"words" text NOT NULL,
	"colleague_id" uuid,
	"told_id" text,
	CONSTRAINT "registration_step_told_id_unique" UNIQUE("told_id"),
	CONSTRAINT "registration_step_kind_known" CHECK ("registration_step"."kind" in ('handed-in', 'asked-back', 'accepted', 'refused'))
);
--> statement-breakpoint
ALTER TABLE "firm_papers" ADD CONSTRAINT "firm_papers_changed_by_colleague_id_fk" FOREIGN KEY ("changed_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "paper_file" ADD CONSTRAINT "paper_file_added_by_colleague_id_fk" FOREIGN KEY ("added_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "registration_step" ADD CONSTRAINT "registration_step_registration_id_registration_id_fk" FOREIGN KEY ("registration_id") REFERENCES "public"."registration"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "registration_step" ADD CONSTRAINT "registration_step_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "registration_step_of" ON "registration_step" USING btree ("registration_id","at");