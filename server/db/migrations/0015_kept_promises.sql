-- what points at nothing any more, from before the database held it
UPDATE "message" SET "record_id" = NULL WHERE "record_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "record" r WHERE r."id" = "message"."record_id");--> statement-breakpoint
UPDATE "message" SET "template_id" = NULL, "template_version" = NULL WHERE "template_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "template" t WHERE t."id" = "message"."template_id");--> statement-breakpoint
UPDATE "draft" SET "template_id" = NULL WHERE "template_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "template" t WHERE t."id" = "draft"."template_id");--> statement-breakpoint
UPDATE "call" SET "record_id" = NULL WHERE "record_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "record" r WHERE r."id" = "call"."record_id");--> statement-breakpoint
UPDATE "record" SET "company_id" = NULL WHERE "company_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "record" r WHERE r."id" = "record"."company_id");--> statement-breakpoint
UPDATE "record" SET "about_id" = NULL WHERE "about_id" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "record" r WHERE r."id" = "record"."about_id");--> statement-breakpoint
DELETE FROM "activity_on_record" WHERE NOT EXISTS (SELECT 1 FROM "record" r WHERE r."id" = "activity_on_record"."record_id");--> statement-breakpoint
ALTER TABLE "consent_entry" ADD CONSTRAINT "consent_entry_message_id_message_id_fk" FOREIGN KEY ("message_id") REFERENCES "public"."message"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "consent_proposal" ADD CONSTRAINT "consent_proposal_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "number_state" ADD CONSTRAINT "number_state_texts_entry_id_consent_entry_id_fk" FOREIGN KEY ("texts_entry_id") REFERENCES "public"."consent_entry"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_import" ADD CONSTRAINT "record_import_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_company_id_record_id_fk" FOREIGN KEY ("company_id") REFERENCES "public"."record"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_about_id_record_id_fk" FOREIGN KEY ("about_id") REFERENCES "public"."record"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "carrier_event" ADD CONSTRAINT "carrier_event_message_id_message_id_fk" FOREIGN KEY ("message_id") REFERENCES "public"."message"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "draft" ADD CONSTRAINT "draft_template_id_template_id_fk" FOREIGN KEY ("template_id") REFERENCES "public"."template"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_template_id_template_id_fk" FOREIGN KEY ("template_id") REFERENCES "public"."template"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_message_id_message_id_fk" FOREIGN KEY ("message_id") REFERENCES "public"."message"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activity_on_record" ADD CONSTRAINT "activity_on_record_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_record_id_record_id_fk" FOREIGN KEY ("record_id") REFERENCES "public"."record"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_activity_id_activity_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activity"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "bulk_change_before_record" ON "bulk_change_before" USING btree ("record_id");--> statement-breakpoint
CREATE INDEX "message_record" ON "message" USING btree ("record_id") WHERE "message"."record_id" is not null;--> statement-breakpoint
CREATE INDEX "call_record" ON "call" USING btree ("record_id") WHERE "call"."record_id" is not null;--> statement-breakpoint
CREATE INDEX "call_on" ON "call" USING btree ("colleague_id","made_at") WHERE "call"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "call_forgotten" ON "call" USING btree ("made_at") WHERE "call"."ended_at" is null;--> statement-breakpoint
CREATE INDEX "round_person_record" ON "round_person" USING btree ("record_id");--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_activity_id_unique" UNIQUE("activity_id");--> statement-breakpoint
ALTER TABLE "consent_entry" ADD CONSTRAINT "consent_entry_kind_known" CHECK ("consent_entry"."kind" in ('agreed', 'refused', 'annulled'));--> statement-breakpoint
ALTER TABLE "consent_entry" ADD CONSTRAINT "consent_entry_covers_known" CHECK ("consent_entry"."covers" in ('texts', 'calls', 'both'));--> statement-breakpoint
ALTER TABLE "consent_entry" ADD CONSTRAINT "consent_entry_how_known" CHECK ("consent_entry"."how" in ('text', 'form', 'by-hand', 'file'));--> statement-breakpoint
ALTER TABLE "consent_proposal" ADD CONSTRAINT "consent_proposal_opted_out_known" CHECK ("consent_proposal"."opted_out" in ('yes', 'no'));--> statement-breakpoint
ALTER TABLE "number_state" ADD CONSTRAINT "number_state_texts_known" CHECK ("number_state"."texts" in ('unknown', 'agreed', 'refused'));--> statement-breakpoint
ALTER TABLE "number_state" ADD CONSTRAINT "number_state_calls_known" CHECK ("number_state"."calls" in ('unknown', 'agreed', 'refused'));--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_role_known" CHECK ("colleague"."role" in ('rep', 'lead', 'admin'));--> statement-breakpoint
ALTER TABLE "colleague" ADD CONSTRAINT "colleague_calls_with_known" CHECK ("colleague"."calls_with" in ('browser', 'own-phones'));--> statement-breakpoint
ALTER TABLE "bulk_change" ADD CONSTRAINT "bulk_change_module_known" CHECK ("bulk_change"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "bulk_change" ADD CONSTRAINT "bulk_change_state_known" CHECK ("bulk_change"."state" in ('running', 'done', 'stopped', 'taking-back', 'taken-back'));--> statement-breakpoint
ALTER TABLE "import_matching" ADD CONSTRAINT "import_matching_module_known" CHECK ("import_matching"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "import_seen" ADD CONSTRAINT "import_seen_module_known" CHECK ("import_seen"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "record_import" ADD CONSTRAINT "record_import_module_known" CHECK ("record_import"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "record_import" ADD CONSTRAINT "record_import_state_known" CHECK ("record_import"."state" in ('loading', 'running', 'done', 'stopped', 'taking-back', 'taken-back'));--> statement-breakpoint
ALTER TABLE "view" ADD CONSTRAINT "view_module_known" CHECK ("view"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "view" ADD CONSTRAINT "view_direction_known" CHECK ("view"."direction" in ('up', 'down'));--> statement-breakpoint
ALTER TABLE "custom_field" ADD CONSTRAINT "custom_field_module_known" CHECK ("custom_field"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "custom_field" ADD CONSTRAINT "custom_field_kind_known" CHECK ("custom_field"."kind" in ('text', 'number', 'money', 'date', 'time', 'choice', 'yes-no', 'phone', 'link', 'mail'));--> statement-breakpoint
ALTER TABLE "phone" ADD CONSTRAINT "phone_kind_known" CHECK ("phone"."kind" in ('mobile', 'landline', 'toll-free', 'unknown'));--> statement-breakpoint
ALTER TABLE "phone" ADD CONSTRAINT "phone_unusable_known" CHECK ("phone"."unusable" in ('empty', 'not-a-number', 'several-numbers', 'needs-country', 'unknown-country-code', 'too-short', 'too-long', 'not-assigned', 'not-theirs'));--> statement-breakpoint
ALTER TABLE "pipeline" ADD CONSTRAINT "pipeline_module_known" CHECK ("pipeline"."module" in ('deal', 'job'));--> statement-breakpoint
ALTER TABLE "record" ADD CONSTRAINT "record_module_known" CHECK ("record"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_audience_known" CHECK ("template"."audience" in ('mine', 'team', 'all'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_direction_known" CHECK ("message"."direction" in ('out', 'in'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_origin_known" CHECK ("message"."origin" in ('by-hand', 'disposition', 'automatic'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_state_known" CHECK ("message"."state" in ('waiting', 'handing-over', 'held', 'taken-back', 'failed', 'not-known', 'accepted', 'unreported', 'sent', 'undelivered', 'delivered', 'received'));--> statement-breakpoint
ALTER TABLE "message" ADD CONSTRAINT "message_encoding_known" CHECK ("message"."encoding" in ('GSM-7', 'UCS-2'));--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_type_known" CHECK ("picture"."type" in ('image/jpeg', 'image/png', 'image/gif'));--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_kind_known" CHECK ("activity"."kind" in ('text-out', 'text-in', 'note', 'record-made', 'fields-changed', 'stage-changed', 'put-on', 'moved-on', 'taken-off', 'consent-changed', 'call-out', 'call-in', 'task-made', 'task-done', 'task-again', 'task-withdrawn'));--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_direction_known" CHECK ("call"."direction" in ('out', 'in'));--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_answered_by_known" CHECK ("call"."answered_by" in ('person', 'machine'));--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_end_why_known" CHECK ("call"."end_why" in ('hung-up', 'busy', 'declined', 'no-answer', 'unreachable', 'no-such-number', 'network', 'own-no-answer'));--> statement-breakpoint
ALTER TABLE "call" ADD CONSTRAINT "call_end_side_known" CHECK ("call"."end_side" in ('us', 'them', 'network'));--> statement-breakpoint
ALTER TABLE "call_effect" ADD CONSTRAINT "call_effect_state_known" CHECK ("call_effect"."state" in ('done', 'unchanged', 'failed', 'left-out', 'taken-back', 'stays'));--> statement-breakpoint
ALTER TABLE "call_handing" ADD CONSTRAINT "call_handing_way_known" CHECK ("call_handing"."way" in ('straight', 'after-a-word'));--> statement-breakpoint
ALTER TABLE "call_handing" ADD CONSTRAINT "call_handing_state_known" CHECK ("call_handing"."state" in ('asked', 'together', 'handed', 'back', 'over'));--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_module_known" CHECK ("disposition"."module" in ('lead', 'candidate', 'client'));--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_family_known" CHECK ("disposition"."family" in ('reached', 'not-reached'));--> statement-breakpoint
ALTER TABLE "disposition" ADD CONSTRAINT "disposition_colour_known" CHECK ("disposition"."colour" in ('mulberry', 'pine', 'saffron', 'slate', 'brick', 'ink'));--> statement-breakpoint
ALTER TABLE "task" ADD CONSTRAINT "task_kind_known" CHECK ("task"."kind" in ('task', 'call-back'));--> statement-breakpoint
ALTER TABLE "call_round" ADD CONSTRAINT "call_round_module_known" CHECK ("call_round"."module" in ('lead', 'candidate', 'client', 'company', 'deal', 'job', 'case', 'appointment', 'payment', 'agreement', 'handover'));--> statement-breakpoint
ALTER TABLE "call_round" ADD CONSTRAINT "call_round_state_known" CHECK ("call_round"."state" in ('open', 'paused', 'stopped'));--> statement-breakpoint
ALTER TABLE "call_round" ADD CONSTRAINT "call_round_order_known" CHECK ("call_round"."order" in ('list', 'local-time', 'last-contact'));--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_state_known" CHECK ("round_person"."state" in ('waiting', 'held', 'called', 'passed', 'skipped'));--> statement-breakpoint
ALTER TABLE "round_person" ADD CONSTRAINT "round_person_reason_known" CHECK ("round_person"."reason" in ('no-number', 'no-calls', 'night', 'zone-unknown', 'called-lately'));--> statement-breakpoint
ALTER TABLE "recording" ADD CONSTRAINT "recording_of_known" CHECK ("recording"."of" in ('call', 'message'));