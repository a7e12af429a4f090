import type { CustomField } from '../shared/fields'

/** Fields that Pannier & Post has added to its modules. */
export const CUSTOM_FIELDS: CustomField[] = [
  { module: 'lead', key: 'bikes', label: 'Bikes', kind: 'text', example: '4 long-johns, 1 trike' },
  { module: 'lead', key: 'budget', label: 'Budget a month', kind: 'money', example: '640' },
  { module: 'lead', key: 'came_by', label: 'Came by', kind: 'text', example: 'Website form' },
  { module: 'lead', key: 'trial_day', label: 'Trial starts', kind: 'date', example: '2026-12-03' },
  { module: 'client', key: 'bikes', label: 'Bikes', kind: 'text', example: '4 long-johns' },
  { module: 'client', key: 'monthly', label: 'Pays a month', kind: 'money', example: '640' },
  { module: 'client', key: 'lease_end', label: 'Lease ends', kind: 'date', example: '2027-03-31' },
  { module: 'client', key: 'service_day', label: 'Next check-up', kind: 'date', example: '2026-12-08' },
  { module: 'candidate', key: 'role_wanted', label: 'Wants to be', kind: 'text', example: 'rider' },
  { module: 'candidate', key: 'available_from', label: 'Free from', kind: 'date', example: '2026-12-14' },
  { module: 'candidate', key: 'hours_a_week', label: 'Hours a week', kind: 'number', example: '24' },
]
