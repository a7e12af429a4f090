ALTER TABLE "call_effect" RENAME COLUMN "round" TO "attempt";--> statement-breakpoint
ALTER TABLE "call_effect" RENAME COLUMN "before" TO "kept";--> statement-breakpoint
ALTER TABLE "call_effect" DROP CONSTRAINT "call_effect_call_id_round_position_pk";--> statement-breakpoint
ALTER TABLE "call_effect" ADD CONSTRAINT "call_effect_call_id_attempt_position_pk" PRIMARY KEY("call_id","attempt","position");--> statement-breakpoint
ALTER TABLE "consent_entry" ADD COLUMN "annuls_id" uuid;--> statement-breakpoint
ALTER TABLE "phone" ADD COLUMN "wrong_e164" text;--> statement-breakpoint
ALTER TABLE "consent_entry" ADD CONSTRAINT "consent_entry_annuls_id_consent_entry_id_fk" FOREIGN KEY ("annuls_id") REFERENCES "public"."consent_entry"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- what effects kept before they kept it by their kind
UPDATE "call_effect" SET "kept" = jsonb_build_object('from', "kept" -> 'stage', 'to', "effect" -> 'stage') WHERE "effect" ->> 'kind' = 'stage' AND "kept" ? 'stage';--> statement-breakpoint
UPDATE "call_effect" SET "kept" = jsonb_build_object('tag', "kept" -> 'tag') WHERE "kept" ? 'tagged';--> statement-breakpoint
UPDATE "call_effect" SET "state" = 'stays', "reason" = 'It was not kept what had been noted before.' WHERE "effect" ->> 'kind' = 'no-calls' AND "state" = 'done';--> statement-breakpoint
UPDATE "call_effect" SET "state" = 'unchanged' WHERE "state" = 'done' AND "kept" = '{}';--> statement-breakpoint
UPDATE "phone" p SET "wrong_e164" = c."other" FROM "call_effect" e JOIN "call" c ON c."id" = e."call_id" WHERE e."kept" -> 'phoneIds' ? p."id"::text AND p."unusable" = 'not-theirs';
