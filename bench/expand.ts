/** Measures what the workbench asks of the core on every edit. A benchmark, not a test: it prints and asserts nothing. */
import { readFileSync } from 'node:fs'
import {
  applyEdit,
  everyExpected,
  expandCourse,
  proofread,
  readDocument,
  Template,
  weakenings,
} from '@wickerframe/core'
import { factsOfRoster, makeRoster } from '@wickerframe/demo'
import { templateOf, told } from './rows.ts'

const timed = (work: () => void, rounds = 60): number[] =>
  Array.from({ length: rounds }, () => {
    const start = performance.now()
    work()
    return performance.now() - start
  }).slice(10)

const facts = factsOfRoster(makeRoster(1))[0]?.facts
if (!facts) throw new Error('the roster is empty')
const read = readDocument(
  Template,
  JSON.parse(readFileSync('demo/templates/harbour-standard.json', 'utf8')),
)
if (!read.ok) throw new Error('the Harbour Standard can be read')
const harbour = read.value
const expansion = expandCourse({ template: harbour, facts })
if (!expansion.ok) throw new Error('the template fits')
const large = templateOf(500)
console.log('In the core, warm:')
console.log(
  `  expansion of the Harbour Standard, 16 weeks, ${everyExpected(expansion.value.parts).length} parts: ${told(timed(() => void expandCourse({ template: harbour, facts }), 200))}`,
)
console.log(
  `  an edit of 500 rows: ${told(timed(() => void applyEdit(large, { edit: 'set-field', part: 'page-3-3', field: ['strength'], was: 'must', value: 'should' })))}`,
)
console.log(
  `  what a layer of 500 rows weakens: ${told(timed(() => void weakenings(large, large)))}`,
)
console.log(
  `  proofreading of the Harbour Standard (in a worker): ${told(timed(() => void proofread(harbour)))}`,
)
