import { array, boolean, object, string, type InferType } from 'yup'
import { BULK_KINDS } from '../bulk'
import { MODULES } from '../modules'
import { freshId, idIfSeen, idOf, line } from './common'
import { listQuery } from './record'

export const ofModule = object({ module: string().oneOf(MODULES).required() })

export const viewForm = object({
  /** Made by the browser: saving under the same id changes the view. */
  id: freshId().required(),
  module: string().oneOf(MODULES).required(),
  name: line(60).required('Give the view a name.'),
  columns: array(line(80).required()).min(1, 'Show at least one column.').max(24, 'A list shows 24 columns at most.').required(),
  where: string().max(8_000).default(''),
  sort: line(80).required(),
  direction: string().oneOf(['up', 'down'] as const).required(),
  /** With my team; else it is for me alone. */
  shared: boolean().default(false),
})
export type ViewForm = InferType<typeof viewForm>

export const exportQuery = listQuery.shape({
  /** Keys with commas between. */
  columns: array(line(80).required())
    .min(1, 'Take out at least one column.')
    .max(60)
    .required()
    .transform((_, given: unknown) => (typeof given === 'string' ? given.split(',') : given)),
  format: string()
    .oneOf(['csv', 'vcf'] as const)
    .required(),
})
export type ExportQuery = InferType<typeof exportQuery>

/** Which records: those with these ids, those that a file brought, or all that the list holds. */
export const selection = object({
  list: listQuery.required(),
  ids: array(idIfSeen().required())
    .min(1, 'Choose at least one record.')
    .max(1_000, 'Choose 1,000 one by one at most, or all of the list.')
    .nullable()
    .default(null),
  importId: idOf('import').nullable().default(null),
})
export type Selection = InferType<typeof selection>

/** Who is meant: what is chosen in a list, or all in a group. */
export const whom = {
  selection: selection.nullable().default(null),
  groupId: idOf('group').nullable().default(null),
}
export interface Whom { selection: Selection | null, groupId: string | null }

const change = object({
  kind: string().oneOf(BULK_KINDS).required(),
  ownerId: idOf('colleague').when('kind', { is: 'owner', then: one => one.required('Choose who gets them.') }),
  stageId: idOf('stage').when('kind', { is: 'stage', then: one => one.required('Choose a stage.') }),
  groupId: idOf('group').when('kind', { is: (kind: unknown) => String(kind).endsWith('group'), then: one => one.required('Choose a group.') }),
  tag: line(40).when('kind', { is: (kind: unknown) => String(kind).endsWith('tag'), then: one => one.required('Type the tag.') }),
})

export const bulkPreviewForm = object({ selection: selection.required(), change: change.required() })
export const bulkForm = bulkPreviewForm.shape({ id: freshId().required() })
export type BulkPreviewForm = InferType<typeof bulkPreviewForm>
export type BulkForm = InferType<typeof bulkForm>
