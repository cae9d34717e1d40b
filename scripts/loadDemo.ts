import type { CourseSummary } from '@wickerframe/contract'
import {
  everyExpected,
  expandCourse,
  mostFileBytes,
  type Change,
  type Template,
} from '@wickerframe/core'
import {
  coastalNavigation,
  demoFile,
  demoFiles,
  demoPassword,
  demoTemplate,
  departments,
  drawings,
  drawingSets,
  factsOfRoster,
  harbourDraftEdits,
  makeRoster,
  navigationProgramme,
  rosterCsv,
  seededRandom,
  signIns,
  stories,
  storyAt,
  templateFiles,
  terms,
  topicsFor,
  workshopStandard,
  type DemoFile,
} from '@wickerframe/demo'
import { inventHistory } from './demoHistory.ts'
import { readHandout, readRoster } from '@wickerframe/interchange'
import { connectorClient, type Answer } from '@wickerframe/server/connector/client'
import { listCourses } from '@wickerframe/server/courses/courses'
import { replaceModuleOwners } from '@wickerframe/server/courses/coursePeople'
import { keepReading } from '@wickerframe/server/files/fileReadings'
import { putEntry } from '@wickerframe/server/library/library'
import { addPerson, findWithPassword } from '@wickerframe/server/people/people'
import { importRoster } from '@wickerframe/server/roster/roster'
import { commandRun } from '@wickerframe/server/runs/commands'
import { createRun } from '@wickerframe/server/runs/newRun'
import { findRun } from '@wickerframe/server/runs/runs'
import { addComment } from '@wickerframe/server/templates/comments'
import {
  addTemplate,
  editDraft,
  findVersion,
  letContribute,
  releaseDraft,
  useVersion,
} from '@wickerframe/server/templates/templates'
import { putTerm } from '@wickerframe/server/terms/terms'
import { databaseAddress, readSettings, clockOf } from '@wickerframe/server/start/settings'
import { connect, firstRow, institutionNow, keepContent } from '@wickerframe/storage'

const answered = <T>(answer: Answer<T>): T => {
  if (answer.state !== 'answered') throw new Error(`the practice platform: ${answer.detail}`)
  return answer.value
}

/** Which of the demo's templates a course is built from. */
/** Where a course goes; the fourth class sections of the Navigation programme try its layer first. */
const templateFor = ({
  modality,
  weeks,
  department,
  classSections,
}: Pick<CourseSummary, 'modality' | 'weeks' | 'department' | 'classSections'>): string => {
  if (weeks <= 8) return 'short-course-standard'
  if (modality !== 'on-campus') return 'distance-standard'
  return department === 'NAV' && classSections.length === 1 && classSections[0] === '04'
    ? 'navigation-programme'
    : 'harbour-standard'
}

/**
 * Loads the made-up college, once: people, terms, templates and roster go in as a designer would put them, the rollouts
 * run as jobs against the practice platform, then each instructor's edits are made there, and everything is checked.
 */
export const loadDemo = async (
  environment: NodeJS.ProcessEnv,
  courses: number,
  say: (text: string) => void,
): Promise<void> => {
  const settings = readSettings(environment)
  const pool = connect(databaseAddress(settings), 8)
  try {
    if (
      await firstRow(
        pool,
        `SELECT 1 AS one
         FROM audit
         WHERE what = 'demo loaded'
         LIMIT 1`,
      )
    )
      return
    if (
      await firstRow(
        pool,
        `SELECT 1 AS one
         FROM people
         LIMIT 1`,
      )
    )
      throw new Error(
        'an earlier loading of the demo was interrupted; start again with “npm run demo -- --fresh”',
      )
    say('Loading the demo college (this happens once) …')
    const connector = connectorClient({
      url: settings.PLATFORM_URL,
      token: settings.PLATFORM_TOKEN,
      timeoutSeconds: 30,
    })
    const today = clockOf(settings).today()
    for (const person of signIns) await addPerson(pool, { ...person, password: demoPassword })
    const designer = (await findWithPassword(pool, 'designer@kestrelsound.example'))?.person
    if (!designer) throw new Error('the demo has no designer')
    for (const term of terms) await putTerm(pool, term)
    const bringIn = async (template: Template): Promise<Template> => {
      const added = await addTemplate(pool, template, designer.email)
      const released = await releaseDraft(pool, template.key, 0, 'First version', designer)
      const version = await findVersion(pool, template.key, 1)
      if (!version)
        throw new Error(`${template.title}: ${JSON.stringify(added)}, ${JSON.stringify(released)}`)
      return version.document
    }
    for (const name of demoFiles) await keepFile(pool, name)
    for (const file of templateFiles) await bringIn(demoTemplate(file))
    for (const document of drawings()) {
      const put = await putEntry(
        pool,
        { kind: 'image', was: null, document },
        designer.email,
        async () => {},
      )
      // Those that a template shows are there already.
      if (put.state !== 'saved' && put.state !== 'taken')
        throw new Error(`${document.fileName}: ${JSON.stringify(put)}`)
    }
    for (const document of drawingSets()) {
      const put = await putEntry(
        pool,
        { kind: 'image-set', was: null, document },
        designer.email,
        async () => {},
      )
      if (put.state !== 'saved') throw new Error(`${document.title}: ${JSON.stringify(put)}`)
    }
    await bringIn(workshopStandard())
    const harbour = await findVersion(pool, 'harbour-standard', 1)
    if (!harbour) throw new Error('the Harbour Standard was not released')
    await bringIn(coastalNavigation(await bringIn(navigationProgramme(harbour.document))))
    await letContribute(pool, 'navigation-programme', 'contributor@kestrelsound.example')
    const edited = await editDraft(pool, 'harbour-standard', harbourDraftEdits, designer)
    if (edited.state !== 'saved')
      throw new Error(`the Harbour Standard’s draft: ${JSON.stringify(edited)}`)
    const everywhere = (modality: string) =>
      Object.keys(departments).map((department) => ({ department, modality, inUse: true }))
    await useVersion(pool, 'harbour-standard', 1, everywhere('on-campus'), designer.email)
    await useVersion(
      pool,
      'distance-standard',
      1,
      [...everywhere('online'), ...everywhere('hybrid')],
      designer.email,
    )
    const asked = await addComment(
      pool,
      'harbour-standard',
      {
        part: 'checklist',
        answersTo: null,
        text: 'Could the checklist name the day the week closes? Students ask every term.',
      },
      'Halima Strand',
    )
    await addComment(
      pool,
      'harbour-standard',
      {
        part: 'checklist',
        answersTo: asked,
        text: 'It can, from the calendar: I will put the date in with the next version.',
      },
      designer.name,
    )
    await addComment(
      pool,
      'harbour-standard',
      {
        part: 'week',
        answersTo: null,
        text: 'In Galley & Provisions the pause week still has duties in the kitchen. A notice alone is too little there.',
      },
      'Halima Strand',
    )

    const rows = makeRoster(courses)
    const read = readRoster(new TextEncoder().encode(rosterCsv(rows)))
    if (read.errors[0])
      throw new Error(
        `the demo roster: line ${read.errors[0].line}, ${read.errors[0].column}: ${read.errors[0].reason}`,
      )
    await importRoster(
      pool,
      read.courses,
      (course) => topicsFor(course.code, course.weeks),
      designer.email,
    )
    for (const { platformCourseId, facts } of factsOfRoster(rows))
      answered(await connector.create(platformCourseId, `${facts.code} ${facts.title}`))
    // One stale shell and one duplicate stay without a template, as happens.
    const all = await listCourses(pool, 'system', today)
    const deployed = all.length > 20 ? all.slice(0, -2) : all

    for (const key of new Set(deployed.map(({ summary }) => templateFor(summary)))) {
      const version = await findVersion(pool, key, 1)
      if (!version) continue
      const chosen = deployed.filter(({ summary }) => templateFor(summary) === key)
      const order = {
        mode: 'version' as const,
        template: key,
        version: 1,
        only: null,
        except: [],
        restore: { fixedText: false, missingParts: false },
        adopt: false,
      }
      const run = await createRun(pool, {
        kind: 'rollout',
        state: 'planning',
        title: `${version.document.title}, version 1, to ${chosen.length} courses`,
        by: designer.email,
        asOf: null,
        templateId: version.templateId,
        version: 1,
        rollout: { order, rule: null, standing: false },
        tasks: chosen.map((stored) => ({ courseId: stored.summary.id })),
      })
      await waitFor(pool, run, 'planned')
      await commandRun(pool, run, 'approve', designer.email)
      await waitFor(pool, run, 'done')
    }

    // Instructors put in what they filled in.
    const { bytes, content } = demoFile('syllabus-filled-in.docx')
    answered(await connector.putContent(content, oneByOne(bytes), bytes.length))
    const indexOf = new Map(
      all.map((stored) => [
        stored.summary.platformId,
        Number(stored.summary.platformId.slice(3)) - 1001,
      ]),
    )
    for (const { summary } of deployed) {
      const index = indexOf.get(summary.platformId) ?? 0
      const random = seededRandom(7000 + index)
      for (const edit of stories[storyAt(index)] ?? []) {
        const course = answered(await connector.snapshot(summary.platformId))
        const changes: Change[] = edit(course, random)
        if (changes.length > 0)
          answered(
            await connector.apply(summary.platformId, `demo-edit-${index}-${course.revision}`, {
              expectedRevision: course.revision,
              changes,
            }),
          )
      }
    }
    // Ines, who helps in one of Okwudili’s courses, looks after its first weeks.
    const shared = all.find(({ summary }) => summary.platformId === 'kc-1032')
    const version = shared && (await findVersion(pool, templateFor(shared.summary), 1))
    const [assistant] = shared?.summary.assistants ?? []
    const expected =
      version &&
      expandCourse({
        template: version.document,
        facts: shared.facts,
        mintFrom: shared.summary.platformId,
      })
    if (shared && assistant && expected?.ok)
      await replaceModuleOwners(
        pool,
        shared.summary.id,
        Object.fromEntries(
          everyExpected(expected.value.parts)
            .filter(({ key }) => key === 'week')
            .slice(0, 3)
            .map(({ instance }) => [instance, assistant.email]),
        ),
      )
    await waitFor(
      pool,
      await createRun(pool, {
        kind: 'check',
        title: `${all.length} courses as of ${today}`,
        by: designer.email,
        asOf: today,
        templateId: null,
        version: null,
        tasks: all.map(({ summary }) => ({ courseId: summary.id })),
      }),
      'done',
    )
    await inventHistory(pool, all[0]?.facts.term.firstDay ?? today)
    await pool.execute(
      `INSERT INTO audit (at, who, what, subject)
       VALUES (${institutionNow}, 'demo', 'demo loaded', 'college')`,
    )
  } finally {
    await pool.end()
  }
}

async function* oneByOne(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes
}
/** Keeps a file of the college with its text, as bringing it in does. */
const keepFile = async (pool: ReturnType<typeof connect>, name: DemoFile): Promise<void> => {
  const { bytes, content } = demoFile(name)
  const kept = await keepContent(pool, oneByOne(bytes), mostFileBytes)
  const read = await readHandout(bytes, name)
  if (kept.state !== 'kept' || !read.ok) throw new Error(`${name} could not be brought in`)
  await keepReading(pool, content, read.value.words)
}

const waitFor = async (
  pool: ReturnType<typeof connect>,
  run: number,
  state: 'planned' | 'done',
): Promise<void> => {
  for (;;) {
    const detail = await findRun(pool, run)
    if (!detail) throw new Error(`run ${run} is gone`)
    const failed = detail.tasks.find((task) => task.state === 'failed')
    if (failed) throw new Error(`loading the demo: ${failed.code}: ${failed.message}`)
    if (detail.state === state) return
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
}
