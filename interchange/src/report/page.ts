import type { Finding } from '@wickerframe/core'
import { readinessWords, totalsOf, type Report } from './report.ts'

const plain = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

const style = `
body{font:15px/1.5 Georgia,serif;color:#1d2a32;background:#fff;max-width:60rem;margin:2rem auto;padding:0 1rem}
h1{font-size:1.6rem;margin:0}h2{font-size:1.15rem;margin:1.6rem 0 .2rem;break-after:avoid}p{margin:.2rem 0}
table{border-collapse:collapse;width:100%;font:13px/1.4 system-ui,sans-serif;margin:.4rem 0}
th,td{border-bottom:1px solid #bbb;padding:.25rem .5rem .25rem 0;text-align:left;vertical-align:top}
td.n,th.n{text-align:right}tr{break-inside:avoid}thead{display:table-header-group}
.must{font-weight:700;border-left:4px solid #a63d22;padding-left:.4rem}.should{border-left:4px double #805c0c;padding-left:.4rem}.may{color:#555}
.quiet{color:#4a5861}
@page{margin:18mm}@media print{body{margin:0;max-width:none;font-size:11pt}a{color:inherit;text-decoration:none}}
`

const count = (figure: number, one: string, many = `${one}s`): string =>
  `${figure} ${figure === 1 ? one : many}`

const summary = (report: Report): string => {
  const { courses, ready, openMusts, openShoulds, cannotTell } = totalsOf(report)
  return `${ready} of ${count(courses, 'course')} ready; ${count(openMusts, 'open must')}, ${count(openShoulds, 'open should')}${cannotTell > 0 ? `, ${cannotTell} could not be told` : ''}.`
}

const overview = ({ courses, failed }: Report): string =>
  `<table><thead><tr><th>Course</th><th>Class sections</th><th>Who</th><th>How it stands</th><th class="n">Musts</th><th class="n">Shoulds</th></tr></thead><tbody>${courses
    .map(
      ({ result, classSections, owner }, i) =>
        `<tr><td><a href="#course-${i}">${plain(result.course.name)}</a></td><td>${plain(classSections.join(', '))}</td><td>${plain(owner)}</td><td>${readinessWords[result.readiness]}</td><td class="n">${result.counts.openMusts}</td><td class="n">${result.counts.openShoulds}</td></tr>`,
    )
    .join('')}${failed
    .map(
      ({ at, message }) =>
        `<tr><td>${plain(at)}</td><td></td><td></td><td colspan="3">not checked: ${plain(message)}</td></tr>`,
    )
    .join('')}</tbody></table>`

/** A finding in a row, however many places it has; it says itself where else. */
const line = (finding: Finding, fresh: ReadonlySet<string> | undefined): string => {
  const [first] = finding.places
  const waived = finding.places.every((place) => place.waived) ? first?.waived : null
  const isNew = finding.places.some(({ fingerprint }) => fresh?.has(fingerprint))
  return `<tr><td><span class="${finding.strength}">${finding.strength}</span>${finding.places.length > 1 ? ` × ${finding.places.length}` : ''}</td><td>${plain(finding.message)}${isNew ? ' <strong>new</strong>' : ''}${waived ? `<p class="quiet">Waived${waived.until ? ` until ${waived.until}` : ''}: ${plain(waived.reason)}</p>` : ''}</td><td class="quiet">${plain(first?.place.path.join(' › ') ?? '')}</td><td class="quiet">${plain(finding.owner ?? `the ${finding.mender}`)}</td></tr>`
}

const rank = { must: 0, should: 1, may: 2 } as const

/** A report as a page of its own that prints well: no script, nothing fetched. */
export const pageOf = (report: Report): string => {
  const courses = report.courses.map(({ result }, i) => {
    const lines = result.findings.toSorted((a, b) => rank[a.strength] - rank[b.strength])
    const fresh = report.since?.fresh.get(result.course.id)
    const gone = report.since?.gone.get(result.course.id) ?? []
    return `<section id="course-${i}"><h2>${plain(result.course.name)}</h2><p class="quiet">${plain(result.template.title)}${result.template.version === null ? '' : `, version ${result.template.version}`} · as of ${result.asOf} · ${readinessWords[result.readiness]} · ${result.counts.met} of ${result.counts.requirements} requirements met</p>${
      lines.length === 0
        ? '<p>Nothing to mend.</p>'
        : `<table><thead><tr><th>Strength</th><th>What</th><th>Where</th><th>Whose move</th></tr></thead><tbody>${lines.map((finding) => line(finding, fresh)).join('')}</tbody></table>`
    }${gone.length > 0 ? `<p>Gone since ${report.since?.asOf ?? ''}:</p><ul>${gone.map(({ message }) => `<li>${plain(message)}</li>`).join('')}</ul>` : ''}</section>`
  })
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${plain(report.title)}</title><style>${style}</style></head><body><main><h1>${plain(report.title)}</h1><p>${summary(report)}</p><p class="quiet">Made ${report.made.slice(0, 16).replace('T', ' ')} UTC by Wickerframe ${plain(report.version)}.</p>${overview(report)}${courses.join('')}</main></body></html>`
}
