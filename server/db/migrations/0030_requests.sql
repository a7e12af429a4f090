CREATE TABLE "request_settled" (
	"activity_id" uuid PRIMARY KEY NOT NULL,
	"colleague_id" uuid NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	"task_id" uuid
);
--> statement-breakpoint
ALTER TABLE "request_settled" ADD CONSTRAINT "request_settled_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "request_settled" ADD CONSTRAINT "request_settled_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "request_settled" ADD CONSTRAINT "request_settled_task_id_task_id_fk" FOREIGN KEY ("task_id") REFERENCES "public"."task"("id") ON DELETE set null ON UPDATE no action;