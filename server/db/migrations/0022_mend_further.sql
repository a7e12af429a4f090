-- as plainWords and spellingsOf in core/text/plain do
CREATE FUNCTION plain_words(words text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE STRICT AS $$
  SELECT regexp_replace(normalize(replace(replace(replace(replace(replace(replace(replace(replace(replace(lower(normalize(words, NFC) COLLATE "und-x-icu"), 'ß', 'ss'), 'æ', 'ae'), 'œ', 'oe'), 'ø', 'o'), 'đ', 'd'), 'ð', 'd'), 'ł', 'l'), 'þ', 'th'), 'ı', 'i'), NFD), '[\u0300-\u036f]', '', 'g')
$$;--> statement-breakpoint
CREATE FUNCTION spelt_out(words text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE STRICT AS $$
  SELECT public.plain_words(replace(replace(replace(replace(replace(lower(normalize(words, NFC) COLLATE "und-x-icu"), 'ä', 'ae'), 'ö', 'oe'), 'ü', 'ue'), 'å', 'aa'), 'ø', 'oe'))
$$;--> statement-breakpoint
-- all spellings of the words by which a record is found
CREATE FUNCTION found_by(name text, mail text, postcode text, tags text[], fields jsonb) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT CASE WHEN plain = spelt THEN plain ELSE plain || ' ' || spelt END FROM (
    SELECT public.plain_words(words) AS plain, public.spelt_out(words) AS spelt FROM (
      SELECT concat_ws(' ', name, mail, postcode, replace(postcode, ' ', ''), array_to_string(tags, ' '),
        (SELECT string_agg(value, ' ') FROM jsonb_each_text(fields))) AS words
    ) said
  ) both_ways
$$;--> statement-breakpoint
ALTER TABLE "round_person" DROP CONSTRAINT "round_person_reason_known";--> statement-breakpoint
DROP INDEX "record_mail_words";--> statement-breakpoint
ALTER TABLE "activity_on_record" ADD COLUMN "by_hand" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "wish_from" integer;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "wish_to" integer;--> statement-breakpoint
ALTER TABLE "record" ADD COLUMN "found_by" text GENERATED ALWAYS AS (found_by(name, mail, postcode, tags, fields)) STORED;--> statement-breakpoint
ALTER TABLE "message" ADD COLUMN "name" text;--> statement-breakpoint
CREATE INDEX "record_sector" ON "record" USING btree ((nullif("fields" ->> 'sector', '') collate "und-x-icu"),"id") WHERE "record"."module" = 'company';--> statement-breakpoint
CREATE INDEX "record_found_words" ON "record" USING gin ("found_by" gin_trgm_ops);--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_reason_known" CHECK ("round_person"."reason" in ('no-number', 'no-calls', 'night', 'wish', 'zone-unknown', 'called-lately'));