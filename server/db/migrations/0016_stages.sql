CREATE TABLE "stage" (
	"id" uuid PRIMARY KEY NOT NULL,
	"pipeline_id" uuid NOT NULL,
	"name" text NOT NULL,
	"over" boolean DEFAULT false NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "pipeline" DROP CONSTRAINT "pipeline_module_known";--> statement-breakpoint
DROP INDEX "record_pipeline";--> statement-breakpoint
ALTER TABLE "pipeline" ADD COLUMN "holds" text;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "stage_id" uuid;--> statement-breakpoint
ALTER TABLE "record_person" ADD COLUMN "stage_id" uuid;--> statement-breakpoint
ALTER TABLE "stage" ADD CONSTRAINT "stage_pipeline_id_pipeline_id_fk" FOREIGN KEY ("pipeline_id") REFERENCES "public"."pipeline"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- a new firm chooses what it begins with
DELETE FROM "pipeline" WHERE NOT EXISTS (SELECT 1 FROM "firm");--> statement-breakpoint
UPDATE "pipeline" SET "holds" = CASE "module" WHEN 'job' THEN 'applicant' ELSE "module" END;--> statement-breakpoint
-- what had its stages in the program has them as data from now on
INSERT INTO "pipeline" ("id", "module", "holds", "name", "stages", "over", "position")
SELECT gen_random_uuid(), CASE WHEN known.holds IN ('deal', 'job') THEN known.holds ELSE 'deal' END, known.holds, known.name, known.stages, known.over, 100 + known.place
FROM (VALUES
	('lead', 'Leads', '{New,Talking,Trial,Offer,Leased}'::text[], '{}'::text[], 0),
	('candidate', 'Candidates', '{Applied,Talking,"Trial shift",Offer,Hired}', '{}', 1),
	('client', 'Clients', '{Starting,Riding,Renewing,Paused}', '{}', 2),
	('job', 'Jobs', '{Open,Paused,Filled,"Called off"}', '{Filled,"Called off"}', 3),
	('case', 'Cases', '{Open,"Looked into",Waiting,Settled}', '{Settled}', 4),
	('appointment', 'Appointments', '{Planned,Kept,Missed,"Called off"}', '{Kept,Missed,"Called off"}', 5),
	('payment', 'Payments', '{Due,Paid,"Written off"}', '{Paid,"Written off"}', 6),
	('agreement', 'Agreements', '{Running,Renewed,Ended}', '{Renewed,Ended}', 7),
	('handover', 'Handovers', '{Planned,Done,"Called off"}', '{Done,"Called off"}', 8)
) known (holds, name, stages, over, place)
WHERE EXISTS (SELECT 1 FROM "firm");--> statement-breakpoint
INSERT INTO "stage" ("id", "pipeline_id", "name", "over", "position")
SELECT gen_random_uuid(), p."id", named, named = ANY(p."over"), place - 1 FROM "pipeline" p, unnest(p."stages") WITH ORDINALITY one (named, place);--> statement-breakpoint
UPDATE "record" r SET "stage_id" = s."id" FROM "stage" s JOIN "pipeline" p ON p."id" = s."pipeline_id"
WHERE p."holds" = r."module" AND s."name" = r."stage" AND (r."module" <> 'deal' OR p."id" = r."pipeline_id");--> statement-breakpoint
UPDATE "record_person" l SET "stage_id" = s."id" FROM "record" j JOIN "stage" s ON s."pipeline_id" = j."pipeline_id"
WHERE j."id" = l."record_id" AND j."module" = 'job' AND s."name" = l."stage";--> statement-breakpoint
-- what asked for a stage by its name asks for it by its id; for a deal, in every pipeline that has one of the name
CREATE FUNCTION pg_temp.with_stage_ids(given jsonb, held text) RETURNS jsonb LANGUAGE plpgsql AS $$
BEGIN
	IF given ? 'match' THEN
		RETURN jsonb_set(given, '{of}', coalesce((SELECT jsonb_agg(pg_temp.with_stage_ids(one, held) ORDER BY place) FROM jsonb_array_elements(given -> 'of') WITH ORDINALITY x (one, place)), '[]'));
	ELSIF given ->> 'field' = 'stage' AND jsonb_typeof(given -> 'value') = 'array' THEN
		RETURN jsonb_set(given, '{value}', coalesce((SELECT jsonb_agg(s."id") FROM "stage" s JOIN "pipeline" p ON p."id" = s."pipeline_id"
			WHERE p."holds" = held AND (given -> 'value') ? s."name"), '["00000000-0000-7000-8000-000000000000"]'));
	END IF;
	RETURN given;
END $$;--> statement-breakpoint
UPDATE "view" SET "conditions" = pg_temp.with_stage_ids("conditions"::jsonb, "module")::json WHERE "conditions"::text LIKE '%"stage"%';--> statement-breakpoint
CREATE FUNCTION pg_temp.stage_id(named text, held text) RETURNS uuid LANGUAGE sql AS $$
	SELECT s."id" FROM "stage" s JOIN "pipeline" p ON p."id" = s."pipeline_id" WHERE p."holds" = held AND s."name" = named ORDER BY p."position" LIMIT 1
$$;--> statement-breakpoint
UPDATE "disposition" d SET "effects" = coalesce((
	SELECT jsonb_agg(CASE WHEN one ->> 'kind' = 'stage' THEN jsonb_build_object('kind', 'stage', 'stageId', pg_temp.stage_id(one ->> 'stage', d."module")) ELSE one END ORDER BY place)
	FROM jsonb_array_elements(d."effects") WITH ORDINALITY x (one, place)
	WHERE one ->> 'kind' <> 'stage' OR pg_temp.stage_id(one ->> 'stage', d."module") IS NOT NULL), '[]')
WHERE d."effects"::text LIKE '%"stage"%';--> statement-breakpoint
UPDATE "call_effect" e SET "effect" = jsonb_build_object('kind', 'stage', 'stageId', pg_temp.stage_id(e."effect" ->> 'stage', r."module")),
	"kept" = CASE WHEN e."kept" ? 'to' THEN jsonb_build_object('from', pg_temp.stage_id(e."kept" ->> 'from', r."module"), 'to', pg_temp.stage_id(e."kept" ->> 'to', r."module")) ELSE e."kept" END
FROM "call" c JOIN "record" r ON r."id" = c."record_id" WHERE c."id" = e."call_id" AND e."effect" ->> 'kind' = 'stage';--> statement-breakpoint
UPDATE "bulk_change" SET "change" = jsonb_build_object('kind', 'stage', 'stageId', pg_temp.stage_id("change" ->> 'stage', "module")) WHERE "change" ->> 'kind' = 'stage';--> statement-breakpoint
UPDATE "bulk_change_before" b SET "before" = jsonb_build_object('stageId', (
	SELECT s."id" FROM "stage" s JOIN "pipeline" p ON p."id" = s."pipeline_id" WHERE p."holds" = r."module" AND s."name" = b."before" ->> 'stage' AND (r."module" <> 'deal' OR p."id" = r."pipeline_id") LIMIT 1
), 'since', b."before" -> 'since')
FROM "record" r WHERE r."id" = b."record_id" AND b."before" ? 'stage';--> statement-breakpoint
-- fields that were one firm's business are its own
INSERT INTO "custom_field" ("id", "module", "key", "label", "kind", "example", "options", "position")
SELECT gen_random_uuid(), known.module, known.key, known.label, known.kind, known.example, known.options, known.place
FROM (VALUES
	('job', 'openings', 'Openings', 'number', '2', '{}'::text[], 0),
	('job', 'hours_a_week', 'Hours a week', 'number', '24', '{}', 1),
	('job', 'pay', 'Pay an hour', 'money', '24', '{}', 2),
	('job', 'currency', 'Currency', 'choice', 'USD', '{USD,CAD,GBP}', 3),
	('job', 'starts', 'Starts', 'date', '2027-01-11', '{}', 4),
	('case', 'urgency', 'Urgency', 'choice', 'This week', '{Today,"This week","No hurry"}', 0),
	('agreement', 'notice_by', 'Notice by', 'date', '2027-02-28', '{}', 0),
	('handover', 'bikes', 'Bikes', 'text', '2 long-johns', '{}', 0)
) known (module, key, label, kind, example, options, place)
WHERE EXISTS (SELECT 1 FROM "firm")
ON CONFLICT DO NOTHING;--> statement-breakpoint
ALTER TABLE "pipeline" ALTER COLUMN "holds" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_stage_id_stage_id_fk" FOREIGN KEY ("stage_id") REFERENCES "public"."stage"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_person" ADD CONSTRAINT "record_person_stage_id_stage_id_fk" FOREIGN KEY ("stage_id") REFERENCES "public"."stage"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "stage_pipeline" ON "stage" USING btree ("pipeline_id","position");--> statement-breakpoint
CREATE INDEX "record_stage" ON "record" USING btree ("stage_id") WHERE "record"."stage_id" is not null;--> statement-breakpoint
CREATE INDEX "record_person_stage" ON "record_person" USING btree ("stage_id") WHERE "record_person"."stage_id" is not null;--> statement-breakpoint
CREATE INDEX "record_pipeline" ON "record" USING btree ("pipeline_id","stage_id") WHERE "record"."pipeline_id" is not null;--> statement-breakpoint
ALTER TABLE "pipeline" DROP COLUMN "module";--> statement-breakpoint
ALTER TABLE "pipeline" DROP COLUMN "stages";--> statement-breakpoint
ALTER TABLE "pipeline" DROP COLUMN "over";--> statement-breakpoint
ALTER TABLE "record" DROP COLUMN "stage";--> statement-breakpoint
ALTER TABLE "record" DROP COLUMN "over";--> statement-breakpoint
ALTER TABLE "record_person" DROP COLUMN "stage";--> statement-breakpoint
ALTER TABLE "pipeline" ADD CONSTRAINT "pipeline_holds_known" CHECK ("pipeline"."holds" in ('lead', 'candidate', 'client', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover', 'applicant'));
