import { analysePage, checkCourse, type PageFacts } from '@wickerframe/core'
import { demoTemplate, demoToday, factsOfRoster, makeCourse, makeRoster } from '@wickerframe/demo'
const template = demoTemplate('harbour-standard.json')
const facts = factsOfRoster(makeRoster(1))[0]!.facts
const one = makeCourse('bench', template, facts, 'nearly there', 1)
const kept = new Map<string, PageFacts>()
const pageOf = (html: string) => { let p = kept.get(html); if (!p) kept.set(html, (p = analysePage(html))); return p }
for (let i = 0; i < 20; i++) checkCourse({ template, facts, course: one, asOf: demoToday, pageOf })
const t = performance.now()
for (let i = 0; i < 100; i++) checkCourse({ template, facts, course: one, asOf: demoToday, pageOf })
console.log((performance.now() - t) / 100)
