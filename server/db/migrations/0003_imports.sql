CREATE TABLE "import_matching" (
	"colleague_id" uuid NOT NULL,
	"module" text NOT NULL,
	"heading" text NOT NULL,
	"target" text,
	CONSTRAINT "import_matching_colleague_id_module_heading_pk" PRIMARY KEY("colleague_id","module","heading")
);
--> statement-breakpoint
CREATE TABLE "import_piece" (
	"import_id" uuid NOT NULL,
	"place" integer NOT NULL,
	"rows" jsonb NOT NULL,
	"outcomes" jsonb,
	CONSTRAINT "import_piece_import_id_place_pk" PRIMARY KEY("import_id","place")
);
--> statement-breakpoint
CREATE TABLE "import_seen" (
	"module" text NOT NULL,
	"hash" uuid NOT NULL,
	"import_id" uuid NOT NULL,
	"seen" integer NOT NULL,
	"made" integer NOT NULL,
	CONSTRAINT "import_seen_module_hash_import_id_pk" PRIMARY KEY("module","hash","import_id")
);
--> statement-breakpoint
CREATE TABLE "record_import" (
	"id" uuid PRIMARY KEY NOT NULL,
	"module" text NOT NULL,
	"colleague_id" uuid NOT NULL,
	"file_name" text NOT NULL,
	"headings" text[] NOT NULL,
	"rules" jsonb NOT NULL,
	"state" text NOT NULL,
	"total" integer NOT NULL,
	"pieces" integer DEFAULT 0 NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"made" integer DEFAULT 0 NOT NULL,
	"joined" integer DEFAULT 0 NOT NULL,
	"left_out" integer DEFAULT 0 NOT NULL,
	"there_already" integer DEFAULT 0 NOT NULL,
	"refused" integer DEFAULT 0 NOT NULL,
	"kept_back" integer DEFAULT 0 NOT NULL,
	"activity_id" uuid,
	"started_at" timestamp (3) with time zone,
	"made_at" timestamp (3) with time zone NOT NULL,
	"ended_at" timestamp (3) with time zone
);
--> statement-breakpoint
ALTER TABLE "import_matching" ADD CONSTRAINT "import_matching_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_piece" ADD CONSTRAINT "import_piece_import_id_record_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."record_import"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "import_seen" ADD CONSTRAINT "import_seen_import_id_record_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."record_import"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_import" ADD CONSTRAINT "record_import_colleague_id_colleague_id_fk" FOREIGN KEY ("colleague_id") REFERENCES "public"."colleague"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "record_mail_key" ON "record" USING btree (lower("mail")) WHERE "record"."mail" is not null;--> statement-breakpoint
CREATE INDEX "record_name_key" ON "record" USING btree (lower("name"),"module");