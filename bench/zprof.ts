import { analysePage, checkCourse, CheckContext, everyCourseItem, expectationFor, pairCourse, rules, type Course, type PageFacts } from '@wickerframe/core'
import { demoTemplate, demoToday, factsOfRoster, makeCourse, makeRoster } from '@wickerframe/demo'
const template = demoTemplate('harbour-standard.json')
const facts = factsOfRoster(makeRoster(1))[0]!.facts
const one: Course = makeCourse('bench', template, facts, 'nearly there', 1)
const kept = new Map<string, PageFacts>()
const pageOf = (html: string) => { let p = kept.get(html); if (!p) kept.set(html, (p = analysePage(html))); return p }
const check = () => { const r = checkCourse({ template, facts, course: one, asOf: demoToday, pageOf }); if (!r.ok) throw new Error('x') ; return r.value }
for (let i = 0; i < 20; i++) check()
const time = (f: () => void, n = 20) => { const t = performance.now(); for (let i = 0; i < n; i++) f(); return ((performance.now() - t) / n).toFixed(2) }
console.log('items', everyCourseItem(one).length, 'outcomes', check().outcomes.length)
console.log('check', time(check))
console.log('expectation', time(() => void expectationFor({ template, facts, course: one })))
const worked = expectationFor({ template, facts, course: one }); if (!worked.ok) throw new Error('x')
const po = (item: any) => (item.html === null ? null : pageOf(item.html))
console.log('pair', time(() => void pairCourse(worked.value.expected, one, po)))
const pairing = pairCourse(worked.value.expected, one, po)
console.log('context', time(() => void new CheckContext({ ...worked.value, course: one, pairing, asOf: demoToday, pageOf: po })))
const perRule: [string, number][] = []
for (let round = 0; round < 60; round++) { const context = new CheckContext({ ...worked.value, course: one, pairing, asOf: demoToday, pageOf: po })
for (const [i, rule] of rules.entries()) { const t = performance.now(); rule.run(context, undefined); const d = performance.now() - t; perRule[i] = [rule.id, (perRule[i]?.[1] ?? 0) + (round >= 40 ? d / 20 : 0)] } }
console.log('rules total', perRule.reduce((s, r) => s + r[1], 0).toFixed(2), perRule.sort((a, b) => b[1] - a[1]).slice(0, 16).map(([id, ms]) => `${id} ${ms.toFixed(2)}`).join(', '))
