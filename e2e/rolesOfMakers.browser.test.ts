import { pressEverythingAs } from './everyControl.ts'

pressEverythingAs([
  ['contributor', 'contributor@kestrelsound.example'],
  ['instructor', 'sunniva.drake@kestrelsound.example'],
])
