/**
 * Writes everything that derives from the sources: JSON Schemas, example documents, rule pages and the roster file.
 * With --check it writes nothing and fails when a committed file differs.
 */
import { mkdirSync, readFileSync, writeFileSync, existsSync } from 'node:fs'
import { ReportDocument } from '@wickerframe/interchange/report'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import {
  Base,
  CalendarDocument,
  CheckResult,
  Course,
  Facts,
  jsonSchemaOf,
  NameContextDocument,
  PlanDocument,
  decisions,
  rules,
  RulesDocument,
  Template,
  TermDocument,
} from '@wickerframe/core'
import { ruleExamples } from '@wickerframe/core/ruleExamples'
import { MendsDocument } from '@wickerframe/cli/mendsDocument'
import { InferredFormats, JudgedName } from '@wickerframe/cli/namesDocument'
import { apiDocument, connectorDocument, routeNamed, routeNames } from '@wickerframe/contract'
import { demoTemplate, factsOfRoster, makeCourse, makeRoster, rosterCsv } from '@wickerframe/demo'

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const check = process.argv.includes('--check')
const differing: string[] = []

const put = (path: string, text: string) => {
  const file = join(root, path)
  if (check) {
    if (!existsSync(file) || readFileSync(file, 'utf8') !== text) differing.push(path)
    return
  }
  mkdirSync(dirname(file), { recursive: true })
  writeFileSync(file, text)
}
const json = (value: unknown) => `${JSON.stringify(value, null, 2)}\n`

for (const [name, schema] of Object.entries({
  template: Template,
  facts: Facts,
  course: Course,
  check: CheckResult,
  report: ReportDocument,
  term: TermDocument,
  calendar: CalendarDocument,
  'name-context': NameContextDocument,
  base: Base,
  plan: PlanDocument,
  rules: RulesDocument,
  mends: MendsDocument,
  'judged-name': JudgedName,
  'inferred-formats': InferredFormats,
}))
  put(`docs/schema/${name}.schema.json`, json(jsonSchemaOf(name, schema)))
/** Where clients reach each route: what they need of its definition at run time, apart from its schemas. */
put(
  'contract/src/addresses.ts',
  [
    '// Generated from the route definitions by `npm run generate`; do not edit.',
    '',
    '/** Method and path of every route, by its name, without its schemas: all that a browser needs to call it. */',
    'export const addresses = {',
    ...routeNames.map((name) => {
      const { method, path } = routeNamed(name)
      return `  ${name}: { method: '${method}', path: '${path}' },`
    }),
    '} as const',
    '',
  ].join('\n'),
)
put('docs/connector.openapi.json', json(connectorDocument()))
put('docs/api.openapi.json', json(apiDocument()))

const roster = makeRoster(48)
put('demo/roster/autumn-2026.csv', rosterCsv(roster))
const courses = factsOfRoster(roster)
const examples = [
  {
    story: 'perfect',
    template: demoTemplate('harbour-standard.json'),
    facts: courses.find(({ facts }) => facts.code === 'NAV 110')?.facts,
    identity: true,
  },
  {
    story: 'half done',
    template: demoTemplate('short-course-standard.json'),
    facts: courses.find(({ facts }) => facts.code === 'SAF 150')?.facts,
    identity: true,
  },
  {
    story: 'four units',
    template: demoTemplate('harbour-standard.json'),
    facts: courses.find(({ facts }) => facts.code === 'OSC 240')?.facts,
    identity: false,
  },
]
examples.forEach(({ story, template, facts, identity }, i) => {
  if (!facts) throw new Error('an example course is not in the roster')
  const course = makeCourse(`example-${i + 1}`, template, facts, story, i + 1)
  put(`docs/schema/examples/${i + 1}-template.json`, json({ ...template, version: 1 }))
  put(`docs/schema/examples/${i + 1}-facts.json`, json(facts))
  put(
    `docs/schema/examples/${i + 1}-course.json`,
    json(
      identity
        ? course
        : JSON.parse(
            JSON.stringify(course, (field, value: unknown) =>
              field === 'recordedAs' ? undefined : value,
            ),
          ),
    ),
  )
})

const placed: NameContextDocument['place'][] = [
  { week: 3 },
  { number: 2, kind: 'Lab', topic: 'Lifejackets in the tank', due: '2026-09-20' },
  {},
]
placed.forEach((place, i) => {
  const facts = courses.find(
    (course) => course.facts.code === ['NAV 110', 'SAF 150', 'OSC 240'][i],
  )?.facts
  if (!facts) throw new Error('an example course is not in the roster')
  put(
    `docs/schema/examples/${i + 1}-name-context.json`,
    json({ schema: 'wickerframe.name-context/1', facts, place }),
  )
  if (i === 0)
    put('docs/schema/examples/1-term.json', json({ schema: 'wickerframe.term/1', ...facts.term }))
})

const shownBy = await ruleExamples()
for (const rule of rules) {
  const { passes, fails } = shownBy.get(rule.id) ?? { passes: [], fails: [] }
  const parameters = Object.entries(jsonSchemaOf(rule.id, rule.parameters).properties ?? {})
  put(
    `docs/rules/${rule.id}.md`,
    [
      `# ${rule.id}`,
      '',
      `**${rule.title}.** ${rule.why}`,
      '',
      `Group: ${rule.group} · strength unless a template says otherwise: ${rule.strength} · whose move: ${rule.mender} · about ${rule.effortMinutes} ${rule.effortMinutes === 1 ? 'minute' : 'minutes'} a place${rule.mend ? ' · Wickerframe can propose the mend' : ''}`,
      '',
      ...(parameters.length > 0
        ? [
            '## Parameters',
            '',
            ...parameters.map(
              ([name, schema]) =>
                `- \`${name}\`, by default \`${JSON.stringify((schema as { default?: unknown }).default)}\``,
            ),
            '',
          ]
        : []),
      '## What it says',
      '',
      ...Object.values(rule.messages).map((message) => `- ${message}`),
      '',
      '## What it does not tell',
      '',
      rule.untold,
      '',
      '## Passes',
      '',
      ...passes.map((example) => `- ${example.title}`),
      '',
      '## Fails',
      '',
      ...fails.map((example) => `- ${example.title}: “${example.evidence}”`),
      '',
    ].join('\n'),
  )
}
put(
  'docs/rules/README.md',
  [
    '# Rules',
    '',
    'Generated from `core/src/rules/`; each page from its rule’s own file.',
    '',
    ...rules.map((rule) => `- [${rule.id}](${rule.id}.md): ${rule.title} (${rule.group})`),
    '',
    '## Decisions',
    '',
    'Cases on which colleges differ, and how they are read here.',
    '',
    ...decisions.map(({ of, reading }) => `- **${of}** ${reading}`),
    '',
  ].join('\n'),
)

if (differing.length > 0) {
  console.error(
    `generated files differ from what is committed; run \`npm run generate\` and commit:\n${differing.map((path) => `  ${path}`).join('\n')}`,
  )
  process.exitCode = 1
}
