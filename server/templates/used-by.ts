import { sql, type SQL } from 'drizzle-orm'
import type { TemplateUse } from '~~/shared/template'
import { disposition } from '../db/schema'

/** The dispositions that send a template, as a column. */
export const usedBy = (templateId: SQL): SQL<TemplateUse[]> => sql<TemplateUse[]>`(
  select coalesce(json_agg(json_build_object('name', d.name, 'module', d.module) order by d.module, d.position), '[]'::json)
  from ${disposition} d where d.retired_at is null
    and d.effects @> jsonb_build_array(jsonb_build_object('kind', 'text', 'templateId', ${templateId})))`
