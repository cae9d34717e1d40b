import { readFileSync } from 'node:fs'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { CourseSummary, RunDetail, TemplateDraft } from '@wickerframe/contract'
import { everyPart, isModule, readPasted, type TemplateEdit } from '@wickerframe/core'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { fillSignIn, signInWith } from './signIn.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let browser: Browser
let page: Page
let designer: Client

const signIn = async (email: string): Promise<Page> => {
  const opened = await signInWith(browser, bed.address, email)
  opened.setDefaultTimeout(120_000)
  return opened
}
beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  await bed.startWorker()
  designer = await bed.as('designer@kestrelsound.example')
  browser = await openBrowser()
  page = await signIn('designer@kestrelsound.example')
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const draftOf = async (key: string) =>
  (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body
const saved = () => page.getByText(/saved \d/).waitFor()
const type = (text: string) => page.keyboard.type(text)
const press = async (...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key)
}
const row = (key: string) => page.locator(`[data-row="${key}"]`)
/** Waits until the sheet shows these rows, in this order. */
const rowsAre = (keys: readonly string[]) =>
  page.waitForFunction(
    (wanted) =>
      [...document.querySelectorAll('[data-row]')]
        .map((row) => row.getAttribute('data-row'))
        .join() === wanted,
    keys.join(),
  )
const paste = (kinds: Readonly<Record<string, string>>) =>
  page.evaluate((held) => {
    const data = new DataTransfer()
    for (const [kind, text] of Object.entries(held)) data.setData(kind, text)
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    )
  }, kinds)

const goTo = async (key: string, column: number) => {
  await row(key).getByRole('gridcell').nth(column).focus()
  await row(key).getByRole('gridcell').nth(column).dispatchEvent('mousedown')
}

describe('a standard built from nothing, by keyboard alone', () => {
  it('is begun, gets a repeated week with a page, an assignment and a quiz', async () => {
    await page.goto(`${bed.address}/templates/new?way=nothing`)
    await page.getByLabel('It is called').focus()
    await type('Lighthouse Standard')
    await page.getByRole('button', { name: 'Make the template' }).press('Enter')
    await page.getByRole('treegrid').waitFor()
    await page.locator('[data-cell="0-1"]').focus()
    // A module, from the last row of the home page on; its name is asked for at once.
    await press('Control+Shift+Enter')
    await type('Week {week} · {dates}')
    // The next row waits for its name; Enter again ends the list.
    await press('Enter', 'Enter')
    await row('module').waitFor()
    await rowsAre(['home-page', 'home-page/course-title', 'module'])
  })
  it('has cells that are typed into, told what is wrong, filled down, undone and redone', async () => {
    await goTo('module', 5)
    await type('each fortnight')
    await page.getByText('a repeat such as').waitFor()
    await page.keyboard.press('Control+A')
    await type('each week')
    await press('Enter')
    await row('module').getByText('each week').waitFor()
    await goTo('module', 1)
    await press('Control+Enter')
    for (const name of ['Week {week} overview', 'Week {week} task', 'Week {week} check']) {
      await type(name)
      await press('Enter')
    }
    await press('Enter')
    await rowsAre(['home-page', 'home-page/course-title', 'module', 'page', 'page-2', 'page-3'])
    await goTo('page-2', 0)
    await type('assign')
    await press('Enter')
    await goTo('page-3', 0)
    await type('assess')
    await press('Enter')
    await goTo('page-2', 7)
    await type('40')
    await press('Enter')
    await goTo('page-2', 6)
    await type('the last day of its week at 23:59')
    await press('Enter')
    // The due date goes down into the next row.
    await goTo('page-2', 6)
    await press('Shift+ArrowDown', 'Control+D')
    await goTo('page', 3)
    await type('sh')
    await press('Tab')
    await saved()
    const { draft } = await draftOf('lighthouse-standard')
    expect(
      everyPart(draft).map((part) => [
        part.key,
        part.kind,
        part.strength,
        part.settings.points ?? null,
        part.settings.due?.from ?? null,
      ]),
    ).toEqual([
      ['module', 'module', 'must', null, null],
      ['page', 'page', 'should', null, null],
      ['page-2', 'assignment', 'must', 40, 'week-end'],
      ['page-3', 'assessment', 'must', null, 'week-end'],
    ])
    await press('Control+Z')
    await row('page').getByText('must').waitFor()
    await press('Control+Y')
    await row('page').getByText('should').waitFor()
  })
  it('moves rows, copies them, pastes them, removes them, and takes it all back', async () => {
    await goTo('page-3', 1)
    await press('Alt+ArrowUp')
    await page.waitForFunction(
      () => document.querySelectorAll('[data-row]')[4]?.getAttribute('data-row') === 'page-3',
    )
    await goTo('page-3', 1)
    await press('Control+C', 'Control+V')
    await row('page-4').waitFor()
    await goTo('page-4', 1)
    await press('Delete')
    await row('page-4').waitFor({ state: 'detached' })
    await press('Control+Z', 'Control+Z', 'Control+Z')
    await page.waitForFunction(
      () => document.querySelectorAll('[data-row]')[4]?.getAttribute('data-row') === 'page-2',
    )
    await saved()
  })
  it('takes a list in, sets several rows at once, and takes both back after the page was loaded anew', async () => {
    const before = (await draftOf('lighthouse-standard')).draft.parts
    await goTo('module', 1)
    await paste({ 'text/plain': 'Opening\n  Welcome\n  Syllabus quiz\n' })
    await page.getByRole('button', { name: 'Put in 3 rows' }).press('Enter')
    await row('syllabus-quiz').waitFor()
    await page.keyboard.press('ArrowDown')
    await press('Shift+ArrowDown')
    await page.getByLabel('Strength of 2 rows').selectOption('should')
    await until(
      async () =>
        everyPart((await draftOf('lighthouse-standard')).draft).some(
          ({ key, kind, strength }) =>
            key === 'syllabus-quiz' && kind === 'assessment' && strength === 'should',
        ),
      Boolean,
    )
    await page.reload()
    await row('syllabus-quiz').waitFor()
    await goTo('welcome', 1)
    await press('Control+Z')
    await row('welcome').getByText('must').waitFor()
    await press('Control+Z')
    await row('opening').waitFor({ state: 'detached' })
    await until(async () => {
      const { draft } = await draftOf('lighthouse-standard')
      return JSON.stringify(draft.parts) === JSON.stringify(before)
    }, Boolean)
  })
  it('has blocks on its page, and proofreading stops a release until a prompt is written', async () => {
    await goTo('page', 1)
    await press('F4')
    const addBlock = async (kind: string) => {
      await page.getByRole('button', { name: /^Add a block/ }).press('Enter')
      await page.getByRole('menuitem', { name: kind }).waitFor()
      // Letters count together only when they come fast, which a busy machine does not promise: arrows always do.
      const isThere = () =>
        page.evaluate<boolean>(`document.activeElement?.textContent === ${JSON.stringify(kind)}`)
      for (let i = 0; i < 60 && !(await isThere()); i += 1) await press('ArrowDown')
      await press('Enter')
    }
    await addBlock('Fill-in')
    await page.getByLabel(/^Prompt/).waitFor()
    await addBlock('Checklist')
    await page.getByLabel('One line for each thing to tick off').waitFor()
    await saved()
    await page.getByRole('button', { name: /^Release version 1/ }).press('Enter')
    await page.getByText(/Proofreading found 1 error/).waitFor()
    expect(
      await page.getByRole('button', { name: 'Release version 1', exact: true }).isDisabled(),
    ).toBe(true)
    expect(
      (
        await designer.post('/api/templates/lighthouse-standard/release', {
          revision: (await draftOf('lighthouse-standard')).draftRevision,
          note: '',
        })
      ).status,
    ).toBe(409)
    await page.getByLabel(/^Prompt/).focus()
    await page.keyboard.press('Control+A')
    await type('What is this week about?')
    await page.getByText(/Proofreading found no error/).waitFor()
    await saved()
    await page.getByRole('button', { name: 'Release version 1', exact: true }).press('Enter')
    await page.getByText('Version 1 is released').waitFor()
  })
})

describe('a layer on it', () => {
  it('shows what comes from above, adds to it, and cannot weaken it', async () => {
    await page.goto(`${bed.address}/templates/new?way=layer&on=lighthouse-standard&version=1`)
    await page.getByLabel('It is called').fill('Lamp keepers')
    await page.getByRole('region', { name: 'Outline as it grows' }).waitFor()
    await page.getByRole('button', { name: 'Make the template' }).press('Enter')
    await page.getByRole('treegrid').waitFor()
    await row('module').getByText('from above').waitFor()
    await goTo('module', 1)
    await press('Control+Enter')
    await type('Week {week} lamp log')
    await press('Enter', 'Escape')
    await goTo('page-2', 3)
    await type('may')
    await press('Enter')
    await page.getByRole('alert').getByText('What stands above is not weakened here').waitFor()
    await saved()
    const { draft } = await draftOf('lamp-keepers')
    const module = draft.parts[0]
    expect(
      module && isModule(module) && module.items.map((part) => [part.key, part.strength]),
    ).toEqual([
      ['page', 'should'],
      ['page-2', 'must'],
      ['page-3', 'must'],
      ['page-4', 'must'],
    ])
    const lower: TemplateEdit = {
      edit: 'set-field',
      part: 'page-2',
      field: ['strength'],
      was: 'must',
      value: 'may',
    }
    expect(
      (await designer.post('/api/templates/lamp-keepers/edits', { revision: 0, edits: [lower] }))
        .status,
    ).toBe(409)
  })
  it('takes over a newer version from above and keeps its own', async () => {
    const { draftRevision } = await draftOf('lighthouse-standard')
    const edits: TemplateEdit[] = [
      {
        edit: 'set-field',
        part: 'page',
        field: ['name'],
        was: 'Week {week} overview',
        value: 'Week {week} at a glance',
      },
    ]
    expect(
      (
        await designer.post('/api/templates/lighthouse-standard/edits', {
          revision: draftRevision,
          edits,
        })
      ).status,
    ).toBe(200)
    expect(
      (
        await designer.post('/api/templates/lighthouse-standard/release', {
          revision: draftRevision + 1,
          note: '',
        })
      ).status,
    ).toBe(200)
    await page.goto(`${bed.address}/templates/lamp-keepers?view=layer`)
    await page.getByText('Version 2 has been released since').waitFor()
    await page.getByRole('button', { name: 'See what it would bring' }).press('Enter')
    await page.getByText('named Week {week} overview, now Week {week} at a glance').waitFor()
    await page.getByRole('button', { name: 'Take version 2 over' }).press('Enter')
    await page.getByText('Taken over').waitFor()
    const { draft, above } = await draftOf('lamp-keepers')
    expect([above?.version, everyPart(draft).map((part) => part.name)]).toEqual([
      2,
      [
        'Week {week} · {dates}',
        'Week {week} at a glance',
        'Week {week} task',
        'Week {week} check',
        'Week {week} lamp log',
      ],
    ])
  })
  it('is released, deployed to a course and checked', async () => {
    await page.getByRole('button', { name: /^Release version 1/ }).press('Enter')
    await page.getByRole('button', { name: 'Release version 1', exact: true }).press('Enter')
    await page.getByText('Version 1 is released').waitFor()
    const shell = (await designer.get<CourseSummary[]>('/api/courses')).body.find(
      (course) => course.state === 'shell',
    )
    await page.goto(
      `${bed.address}/rollouts/new?template=lamp-keepers&version=1&courses=${shell?.id}`,
    )
    await page.getByRole('button', { name: /^Make the plans/ }).press('Enter')
    await page
      .getByRole('button', { name: /^Approve and run/ })
      .and(page.locator(':enabled'))
      .press('Enter')
    await page.getByText(/parts created/).waitFor()
    await until(
      () => designer.get<CourseSummary>(`/api/courses/${shell?.id}`),
      ({ body }) => body.template?.key === 'lamp-keepers',
    )
    const { run } = (await designer.post<{ run: number }>('/api/checks', { courses: [shell?.id] }))
      .body
    const checked = await until(
      () => designer.get<RunDetail>(`/api/runs/${run}`),
      ({ body }) => body.state === 'done',
    )
    expect(checked.body.tasks.map((task) => [task.state, task.message])).toEqual([
      ['done', expect.stringMatching(/of \d+ requirements met|unchanged since the last check/)],
    ])
    await page.goto(`${bed.address}/courses/${shell?.id}?show=pairing&all=1`)
    await page.getByText('Week 1 lamp log').first().waitFor()
    await page
      .getByText(/requirements met|of \d+ /)
      .first()
      .waitFor()
  })
})

describe('rows', () => {
  it('are copied from one template into another, with what they show', async () => {
    await page.goto(`${bed.address}/templates/harbour-standard`)
    await goTo('syllabus', 1)
    await press('Control+C')
    await page.goto(`${bed.address}/templates/lighthouse-standard`)
    await row('module').waitFor()
    await goTo('module', 1)
    await press('Control+V')
    await row('syllabus').waitFor()
    await saved()
    const { draft } = await draftOf('lighthouse-standard')
    expect(draft.houseTexts.map((text) => text.key).sort()).toEqual([
      'accommodation',
      'honesty',
      'muster',
    ])
  })
  it('are dragged into another module, and back by undo', async () => {
    await page.goto(`${bed.address}/templates/harbour-standard`)
    await row('questions').waitFor()
    const from = await row('technology').getByRole('gridcell').first().boundingBox()
    const to = await row('casting-off').getByRole('gridcell').first().boundingBox()
    if (!from || !to) throw new Error('both rows are in sight')
    await page.mouse.move(from.x + 10, from.y + 12)
    await page.mouse.down()
    await page.mouse.move(from.x + 10, from.y - 20, { steps: 4 })
    await page.mouse.move(to.x + 10, to.y + to.height + 4, { steps: 6 })
    await page.mouse.up()
    await page.waitForFunction(() => {
      const keys = [...document.querySelectorAll('[data-row]')].map((row) =>
        row.getAttribute('data-row'),
      )
      return keys.indexOf('technology') === keys.indexOf('casting-off') + 1
    })
    await page.getByRole('button', { name: 'Undo' }).click()
    await page.waitForFunction(() => {
      const keys = [...document.querySelectorAll('[data-row]')].map((row) =>
        row.getAttribute('data-row'),
      )
      return keys.indexOf('technology') > keys.indexOf('syllabus')
    })
    // The headings stay above, and the last row comes into sight whole.
    await goTo('technology', 1)
    await press('End')
    await page.waitForFunction(() => {
      const last = [...document.querySelectorAll('[data-row]')].at(-1)?.getBoundingClientRect()
      const sheet = document.querySelector('[role=treegrid] > div')?.getBoundingClientRect()
      return last && sheet && last.bottom <= sheet.bottom + 1 && last.top > sheet.top
    })
    await saved()
  })
  it('are found, filtered by kind and strength, and closed', async () => {
    await page.getByLabel('Find in the outline').fill('checklist')
    await row('syllabus').waitFor({ state: 'detached' })
    await rowsAre(['week', 'checklist'])
    await page.getByLabel('Find in the outline').fill('')
    await page.getByLabel('Only this kind').selectOption('discussion')
    await row('syllabus').waitFor({ state: 'detached' })
    await rowsAre(['casting-off', 'introduce', 'questions', 'week', 'discussion'])
    await page.getByLabel('Only this kind').selectOption('')
    await row('syllabus').waitFor()
    await goTo('casting-off', 0)
    await press('ArrowLeft')
    await row('syllabus').waitFor({ state: 'detached' })
    await press('ArrowRight')
    await row('syllabus').waitFor()
  })
})

describe('a page', () => {
  const text = () => page.getByRole('textbox', { name: 'Fixed text' }).last()
  /** Selects what is written, and sees two frames later that it is selected still: a click may be read that late. */
  const selectAll = async () => {
    await text().click()
    await until(
      async () => {
        await press('Control+A')
        return page.evaluate<string>(
          'new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve(getSelection().toString()))))',
        )
      },
      (selected) => selected.trim() !== '',
      20,
    )
  }
  const lastHtml = async () => {
    const part = everyPart((await draftOf('distance-standard')).draft).find(
      (part) => part.key === 'staff-notes',
    )
    const block = part && !isModule(part) ? part.blocks.at(-1) : undefined
    return block?.kind === 'fixed-text' ? block.html : null
  }
  it('keeps of what is pasted the structure, runs nothing of it, and has no heading that skips a level', async () => {
    await page.goto(`${bed.address}/templates/distance-standard?part=staff-notes`)
    await page.getByRole('button', { name: /^Add a block/ }).click()
    await page.getByRole('menuitem', { name: 'Fixed text' }).click()
    await selectAll()
    await paste({
      'text/html': '<h1 style="color:red">Loud</h1><script>window.ran = true</script>',
      'text/plain': 'Loud',
    })
    await page.getByRole('button', { name: 'subheading', exact: true }).last().click()
    // A subheading with no heading above it becomes a heading.
    await until(lastHtml, (html) => html === '<h3>Loud</h3>', 20)
    expect(await page.evaluate('window.ran')).toBe(undefined)
  })
  it('takes a page of a word processor with its lists, tables and links, says what was left out, and takes it back', async () => {
    const copied = readFileSync(
      new URL('../core/src/paste/samples/wordProcessor.html', import.meta.url),
      'utf8',
    )
    await selectAll()
    await paste({ 'text/html': `${copied}<img src="x.png">`, 'text/plain': 'Standing a watch' })
    await until(lastHtml, (html) => html === readPasted(copied).html, 20)
    await page.getByText('Pasted without fonts, colours and spacing, 1 image.').waitFor()
    expect(await violations(page)).toEqual([])
    await page.getByRole('button', { name: 'undo', exact: true }).last().click()
    await until(lastHtml, (html) => html === '<h3>Loud</h3>', 20)
  })
  it('has tables with a tool, from a sheet or begun here, whose headings say what they head', async () => {
    await text().fill('')
    await paste({ 'text/plain': 'Week\tTopic\n1\tTides' })
    const tool = (name: string) => page.getByRole('button', { name, exact: true }).last().click()
    await text().getByRole('cell', { name: 'Tides' }).click()
    await tool('header row')
    await tool('row below')
    await until(
      lastHtml,
      (html) =>
        html ===
        '<table><tbody><tr><th scope="col">Week</th><th scope="col">Topic</th></tr><tr><td>1</td><td>Tides</td></tr><tr><td></td><td></td></tr></tbody></table>',
      20,
    )
    await tool('remove table')
    await page.keyboard.type('Loud')
    await until(lastHtml, (html) => html === '<p>Loud</p>', 20)
  })
  it('has links that follow the name of their part, and asks for alternative text at once', async () => {
    await text().click()
    await press('Control+End', 'Enter')
    await page.getByRole('button', { name: 'link', exact: true }).last().click()
    await page.getByRole('combobox', { name: /^Leads to/ }).fill('syllabus, ')
    await press('Enter')
    await page.getByRole('button', { name: 'picture', exact: true }).last().click()
    const alternative = page.getByLabel(/^What does the picture show/)
    await alternative.fill('')
    expect(await page.getByRole('button', { name: 'Put picture in' }).isDisabled()).toBe(true)
    await alternative.fill('A boat in the harbour')
    await page.getByRole('button', { name: 'Put picture in' }).click()
    const stored = await until(
      async () => JSON.stringify((await draftOf('distance-standard')).draft.parts),
      (text) => text.includes('A boat in the harbour'),
      20,
    )
    expect(stored).toMatch(
      /href=\\"part:syllabus\\"[^>]*data-follows=\\"name\\"|data-follows=\\"name\\"[^>]*href=\\"part:syllabus\\"/,
    )
    expect(stored).toContain('alt=\\"A boat in the harbour\\"')
    await page.getByRole('button', { name: 'As students' }).click()
    await page
      .frameLocator('iframe')
      .getByRole('link', { name: /syllabus/ })
      .waitFor()
  })
  it('has a block kept for other places, corrected once', async () => {
    await page.getByRole('button', { name: 'Page', exact: true }).click()
    await page.getByRole('button', { name: 'keep for other places' }).first().click()
    await page.getByText('make it this page’s own').waitFor()
    // Leaving takes along only what the server has.
    await until(
      async () => (await draftOf('distance-standard')).draft.keptBlocks.length,
      (count) => count > 0,
      20,
    )
    await page.goto(`${bed.address}/templates/distance-standard?view=shared`)
    await page.getByText('shown in 1 place').last().waitFor()
    await saved()
  })
})

describe('one repetition made different', () => {
  it('is an exception that shows as such, with a part of its own', async () => {
    await page.goto(`${bed.address}/templates/distance-standard?show=course`)
    await page.getByRole('button', { name: 'make this one different' }).nth(2).press('Enter')
    await page.getByText(/is different in number \d/).waitFor()
    await page.getByLabel('Named (as the others, when empty)').fill('Week {week}: at sea')
    await page.getByRole('button', { name: 'As this course' }).press('Enter')
    await page.getByText(/^Week \d: at sea$/).waitFor()
    await page.getByText('different here').first().waitFor()
  })
})

describe('two people on one draft', () => {
  it('both keep their edits of different fields; on the same field both values are shown and nothing is lost', async () => {
    await page.goto(`${bed.address}/templates/short-course-standard?part=technology`)
    await row('technology').waitFor()
    const other = async (field: string, was: string, value: string) =>
      designer.post('/api/templates/short-course-standard/edits', {
        revision: 0,
        edits: [{ edit: 'set-field', part: 'technology', field: [field], was, value }],
      })
    const { draft } = await draftOf('short-course-standard')
    const name = everyPart(draft).find((part) => part.key === 'technology')?.name ?? ''
    expect((await other('name', name, 'Tools of the trade')).status).toBe(200)
    await goTo('technology', 3)
    await type('may')
    await press('Enter')
    await page
      .getByText('Somebody else changed the draft meanwhile')
      .or(row('technology').getByText('Tools of the trade'))
      .first()
      .waitFor()
    await saved()
    // So that the page does not learn of it before it edits the same field.
    await page.route('**/revision', (route) => route.abort())
    expect((await other('strength', 'may', 'must')).status).toBe(200)
    await goTo('technology', 3)
    await type('should')
    await press('Enter')
    await page
      .getByText(
        /Somebody else set the strength of “Tools of the trade” meanwhile\. There it says “must”; you wrote “should”/,
      )
      .waitFor()
    await page.unroute('**/revision')
    await page.getByRole('button', { name: 'put mine' }).press('Enter')
    await until(
      async () =>
        everyPart((await draftOf('short-course-standard')).draft).find(
          (part) => part.key === 'technology',
        ),
      (part) => part?.strength === 'should' && part.name === 'Tools of the trade',
      20,
    )
  })
})

describe('two people at one machine', () => {
  it('whoever signs in after the other, in the same tab, takes nothing of theirs back', async () => {
    const tab = await signIn('designer@kestrelsound.example')
    await tab.goto(`${bed.address}/templates/short-course-standard?part=technology`)
    const strength = tab.locator('[data-row="technology"]').getByRole('gridcell').nth(3)
    await strength.focus()
    await strength.dispatchEvent('mousedown')
    await tab.keyboard.type('may')
    await tab.keyboard.press('Enter')
    const undo = tab.getByRole('button', { name: 'Undo' })
    await tab.getByText(/saved \d/).waitFor()
    expect(await undo.isEnabled()).toBe(true)
    await tab.getByRole('button', { name: /sign out and more/ }).press('Enter')
    await tab.getByRole('menuitem', { name: 'Sign out on this device' }).press('Enter')
    await fillSignIn(tab, 'administrator@kestrelsound.example')
    await tab.getByRole('link', { name: 'Templates' }).press('Enter')
    await tab.getByRole('link', { name: 'Short Course Standard' }).first().press('Enter')
    await undo.waitFor()
    expect(await undo.isDisabled()).toBe(true)
    await tab.context().close()
  })
})

describe('comments', () => {
  it('are written by a reviewer, answered and closed by the designer', async () => {
    const reviewer = await signIn('reviewer@kestrelsound.example')
    await reviewer.goto(`${bed.address}/templates/distance-standard?view=comments`)
    await reviewer.getByLabel('What you would say').fill('Is one discussion a week enough?')
    await reviewer.getByRole('button', { name: 'Comment', exact: true }).click()
    await reviewer.getByText('Is one discussion a week enough?').waitFor()
    expect(await reviewer.getByRole('button', { name: /^Release version/ }).count()).toBe(0)
    await page.goto(`${bed.address}/templates/distance-standard?view=comments`)
    await page.getByRole('button', { name: 'answer' }).first().click()
    await page.getByLabel('Your answer').fill('Two from the next version on.')
    await page.getByRole('button', { name: 'Answer', exact: true }).click()
    await page.getByText('Two from the next version on.').waitFor()
    await page.getByRole('button', { name: 'close' }).first().click()
    await page.getByText('No open comment').waitFor()
  })
})

describe('the library', () => {
  it('puts a new revision of a house text in force, and tells where it is used', async () => {
    await page.goto(`${bed.address}/library?open=honesty`)
    await page.getByRole('button', { name: 'Correct it' }).click()
    const field = page.getByRole('textbox', { name: 'Words of Academic Honesty' })
    await field.click()
    await page.keyboard.press('Control+End')
    await type(' Ask before you copy.')
    await page.getByRole('button', { name: 'Put revision 2 in force' }).click()
    await page
      .getByRole('listitem')
      .filter({ hasText: 'Academic Honesty' })
      .getByText('text, revision 2')
      .waitFor()
    const { draft } = await draftOf('harbour-standard')
    expect(
      draft.houseTexts.find((text) => text.key === 'honesty')?.revisions.at(-1)?.html,
    ).toContain('Ask before you copy')
  })
})

describe('a set of images', () => {
  /** A photograph as a camera writes it, larger than what may be kept. */
  const photograph = async (): Promise<Buffer> =>
    Buffer.from(
      await page.evaluate(() => {
        const canvas = document.createElement('canvas')
        canvas.width = 3000
        canvas.height = 2000
        const on = canvas.getContext('2d')
        for (let i = 0; i < 3000; i += 3) {
          if (on) on.fillStyle = `hsl(${(i * 7) % 360} 70% ${20 + (i % 60)}%)`
          on?.fillRect(i, 0, 3, 2000)
        }
        return canvas.toDataURL('image/jpeg', 0.9).split(',')[1] ?? ''
      }),
      'base64',
    )
  it('holds photographs to its size: they are cut as they are put in, and when the size is another', async () => {
    await page.goto(`${bed.address}/library?kind=image&set=banners`)
    await page.getByText('Banners are 1200 × 260 pixels; all of them fit').waitFor()
    await page
      .getByLabel('Image files')
      .setInputFiles({ name: 'Lagoon.jpg', mimeType: 'image/jpeg', buffer: await photograph() })
    await page.getByLabel('What Lagoon.webp shows').fill('A lagoon at noon')
    await page.getByLabel('Licence', { exact: true }).fill('our own')
    await page.getByRole('button', { name: 'Put it in' }).click()
    await page.getByRole('button', { name: 'Banners (11)' }).waitFor()
    await page.getByText('Lagoon.webp · 1200 × 260 pixels').waitFor()
    await page.getByText('Banners are 1200 × 260 pixels; all of them fit').waitFor()
    await page.getByRole('button', { name: 'change the set' }).click()
    await page.getByLabel('Height').fill('200')
    await page.getByRole('button', { name: 'Save the set' }).click()
    await page.getByText('11 are of another size').waitFor()
    await page.getByRole('button', { name: /A lagoon at noon/ }).click()
    await page.getByRole('button', { name: 'Cut it to 1200 × 200 around its middle' }).click()
    await page.getByText('Lagoon.webp · 1200 × 200 pixels').waitFor()
    await page.getByText('10 are of another size').waitFor()
  })
  it('is what images are chosen by on a page', async () => {
    await page.goto(`${bed.address}/templates/workshop-standard/pages/home-page`)
    await page.getByRole('main').locator('img').first().click()
    const groups = page.getByLabel('Shows').locator('optgroup')
    await expect
      .poll(() => groups.evaluateAll((all) => all.map((each) => each.getAttribute('label'))), {
        timeout: 60_000,
      })
      .toEqual(['Banners', 'Signs', 'Others'])
  })
})

describe('a model course', () => {
  it('becomes a template, with what is refused left out', async () => {
    await page.goto(`${bed.address}/templates/new?way=model&course=1`)
    await page.getByText('16 modules are one, repeated each week').waitFor()
    await page
      .getByLabel(/Week \{week\} notes/)
      .first()
      .uncheck()
    await page.getByRole('button', { name: 'Make the template' }).click()
    await page.getByRole('treegrid').waitFor()
    const { draft } = await draftOf('new-standard')
    expect(draft.parts.filter((part) => part.repeat)).toHaveLength(1)
    expect(everyPart(draft).some((part) => part.name === 'Week {week} notes')).toBe(false)
  })
})
