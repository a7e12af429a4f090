CREATE TABLE "recovery_code" (
	"colleague_id" uuid NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "recovery_code_colleague_id_hash_pk" PRIMARY KEY("colleague_id","hash")
);
--> statement-breakpoint
CREATE TABLE "second_step" (
	"colleague_id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"confirmed_at" timestamp (3) with time zone,
	"last_period" bigint
);
--> statement-breakpoint
ALTER TABLE "recovery_code" ADD CONSTRAINT "recovery_code_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_step" ADD CONSTRAINT "second_step_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;