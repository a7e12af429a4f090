CREATE TABLE "begin_key" (
	"key_hash" text PRIMARY KEY NOT NULL,
	"made_at" timestamp (3) with time zone NOT NULL
);
