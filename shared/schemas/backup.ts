import { object, string } from 'yup'

export const backupForm = object({ key: string().max(200).required('The key is missing. It stands in the data folder.') })
