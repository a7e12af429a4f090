CREATE TABLE "call_declined" (
	"call_id" uuid NOT NULL,
	"colleague_id" uuid NOT NULL,
	CONSTRAINT "call_declined_call_id_colleague_id_pk" PRIMARY KEY("call_id","colleague_id")
);
--> statement-breakpoint
ALTER TABLE "colleague" ADD COLUMN "single_keys" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "call_declined" ADD CONSTRAINT "call_declined_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call_declined" ADD CONSTRAINT "call_declined_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;