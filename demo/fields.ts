import { CURRENCIES, type ModuleField } from '../shared/fields'

/** Fields that Pannier & Post has added to its modules. */
export const CUSTOM_FIELDS: ModuleField[] = [
  { module: 'lead', key: 'bikes', label: 'Bikes', kind: 'text', example: '4 long-johns, 1 trike', options: [] },
  { module: 'lead', key: 'budget', label: 'Budget a month', kind: 'money', example: '640', options: [] },
  { module: 'lead', key: 'came_by', label: 'Source', kind: 'choice', example: 'Website form', options: ['Website form', 'Market stall', 'A client told them', 'Saw a bike'] },
  { module: 'lead', key: 'trial_day', label: 'Trial starts', kind: 'date', example: '2026-12-03', options: [] },
  { module: 'client', key: 'bikes', label: 'Bikes', kind: 'text', example: '4 long-johns', options: [] },
  { module: 'client', key: 'monthly', label: 'Pays a month', kind: 'money', example: '640', options: [] },
  { module: 'client', key: 'lease_end', label: 'Lease ends', kind: 'date', example: '2027-03-31', options: [] },
  { module: 'client', key: 'service_day', label: 'Next check-up', kind: 'date', example: '2026-12-08', options: [] },
  { module: 'candidate', key: 'role_wanted', label: 'Wants to be', kind: 'text', example: 'rider', options: [] },
  { module: 'candidate', key: 'available_from', label: 'Free from', kind: 'date', example: '2026-12-14', options: [] },
  { module: 'candidate', key: 'hours_a_week', label: 'Hours a week', kind: 'number', example: '24', options: [] },
  { module: 'job', key: 'openings', label: 'Openings', kind: 'number', example: '2', options: [] },
  { module: 'job', key: 'hours_a_week', label: 'Hours a week', kind: 'number', example: '24', options: [] },
  { module: 'job', key: 'pay', label: 'Pay an hour', kind: 'money', example: '24', options: [] },
  { module: 'job', key: 'currency', label: 'Currency', kind: 'choice', example: 'USD', options: CURRENCIES },
  { module: 'job', key: 'starts', label: 'Starts', kind: 'date', example: '2027-01-11', options: [] },
  { module: 'case', key: 'urgency', label: 'Urgency', kind: 'choice', example: 'This week', options: ['Today', 'This week', 'No hurry'] },
  { module: 'agreement', key: 'notice_by', label: 'Notice by', kind: 'date', example: '2027-02-28', options: [] },
  { module: 'handover', key: 'bikes', label: 'Bikes', kind: 'text', example: '2 long-johns', options: [] },
]
