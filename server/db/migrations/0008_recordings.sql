CREATE TABLE "recording" (
	"id" uuid PRIMARY KEY NOT NULL,
	"call_id" uuid NOT NULL,
	"of" text NOT NULL,
	"ms" integer NOT NULL,
	"peaks" jsonb NOT NULL,
	"size" integer NOT NULL,
	"sound" "bytea" NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "recording_call_id_unique" UNIQUE("call_id")
);
--> statement-breakpoint
CREATE TABLE "recording_mark" (
	"id" uuid PRIMARY KEY NOT NULL,
	"recording_id" uuid NOT NULL,
	"colleague_id" uuid NOT NULL,
	"at_ms" integer NOT NULL,
	"words" text NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "records" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "greeting" text;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "ring_seconds" integer DEFAULT 25 NOT NULL;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "hours" jsonb;--> statement-breakpoint
ALTER TABLE "line" ADD COLUMN "owner_first" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "rings_first" uuid;--> statement-breakpoint
ALTER TABLE "call" ADD COLUMN "rings_first_until" timestamp (3) with time zone;--> statement-breakpoint
ALTER TABLE "recording" ADD CONSTRAINT "recording_call_id_call_id_fk" FOREIGN KEY ("call_id") REFERENCES "public"."call"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recording_mark" ADD CONSTRAINT "recording_mark_recording_id_recording_id_fk" FOREIGN KEY ("recording_id") REFERENCES "public"."recording"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recording_mark" ADD CONSTRAINT "recording_mark_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "recording_mark_of" ON "recording_mark" USING btree ("recording_id","at_ms");--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_rings_first_colleague_id_fk" FOREIGN KEY ("rings_first") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;