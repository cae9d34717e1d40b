import { pressEverythingAs } from './everyControl.ts'

pressEverythingAs([['reviewer', 'reviewer@kestrelsound.example']])
