CREATE TABLE "carrier_account" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"title" text NOT NULL,
	"settings" jsonb NOT NULL,
	"secret" text NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "carrier_account_name_unique" UNIQUE("name"),
	CONSTRAINT "carrier_account_kind_known" CHECK ("carrier_account"."kind" in ('smpp'))
);
--> statement-breakpoint
CREATE TABLE "smpp_received_part" (
	"id" uuid NOT NULL,
	"carrier" text NOT NULL,
	"remote" text NOT NULL,
	"own" text NOT NULL,
	"reference" integer NOT NULL,
	"parts" integer NOT NULL,
	"part" integer NOT NULL,
	"text" text NOT NULL,
	"at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "smpp_received_part_carrier_remote_own_reference_parts_part_pk" PRIMARY KEY("carrier","remote","own","reference","parts","part")
);
--> statement-breakpoint
CREATE TABLE "smpp_sent_part" (
	"carrier" text NOT NULL,
	"ref" text NOT NULL,
	"text_ref" text NOT NULL,
	"fate" text,
	"sent_at" timestamp (3) with time zone NOT NULL,
	CONSTRAINT "smpp_sent_part_carrier_ref_pk" PRIMARY KEY("carrier","ref"),
	CONSTRAINT "smpp_sent_part_fate_known" CHECK ("smpp_sent_part"."fate" in ('on-the-way', 'delivered', 'not-delivered'))
);
--> statement-breakpoint
ALTER TABLE "carrier_account" ADD CONSTRAINT "carrier_account_made_by_colleague_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "smpp_received_part_at" ON "smpp_received_part" USING btree ("at");--> statement-breakpoint
CREATE INDEX "smpp_sent_part_text" ON "smpp_sent_part" USING btree ("carrier","text_ref");--> statement-breakpoint
CREATE INDEX "smpp_sent_part_sent" ON "smpp_sent_part" USING btree ("sent_at");