import { Link } from 'react-router'
import { modalities } from '@wickerframe/core'
import type { Me, TemplateSummary } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { useTemplates } from '../../api/queries.ts'
import { Moment, Page, Pick, plural, Problem, Waiting } from '../../controls/controls.tsx'
import { Tick } from '../../controls/typed.tsx'
import { Messages } from '../../shell/Messages.tsx'
import { useAddress } from '../../shell/useAddress.ts'

const fits = <T,>(list: readonly T[], wanted: T | null): boolean =>
  wanted === null || list.length === 0 || list.includes(wanted)
const usesOf = (template: TemplateSummary) =>
  template.versions.flatMap((version) =>
    version.uses.map((use) => ({ ...use, version: version.number })),
  )

/** Layers stand under what they are built on. */
const inOrder = (
  templates: readonly TemplateSummary[],
): { template: TemplateSummary; depth: number }[] => {
  const keys = new Set(templates.map((template) => template.key))
  const under = (key: string, depth: number): { template: TemplateSummary; depth: number }[] =>
    templates
      .filter((template) => template.above?.key === key)
      .flatMap((template) => [{ template, depth }, ...under(template.key, depth + 1)])
  return templates
    .filter((template) => !template.above || !keys.has(template.above.key))
    .flatMap((template) => [{ template, depth: 0 }, ...under(template.key, 1)])
}

/** The catalogue: which templates there are, for which courses, and which version is in use where. */
export const TemplatesScreen = ({ me }: { me: Me }) => {
  const templates = useTemplates()
  const { search, set } = useAddress()
  const modality = search.get('modality')
  const department = search.get('department')
  const weeks = search.get('weeks')
  const inUse = search.get('inUse') === '1'
  const all = templates.data ?? []
  const departments = [
    ...new Set(
      all.flatMap((template) => [
        ...template.appliesTo.departments,
        ...usesOf(template).map((use) => use.department),
      ]),
    ),
  ].sort()
  const lengths = [...new Set(all.flatMap(({ appliesTo }) => appliesTo.weeks))].sort(
    (a, b) => b - a,
  )
  const found = all.filter(
    (template) =>
      fits(template.appliesTo.modalities, modality) &&
      fits(template.appliesTo.departments, department) &&
      fits(template.appliesTo.weeks, weeks === null ? null : Number(weeks)) &&
      (!inUse ||
        usesOf(template).some(
          (use) =>
            (modality === null || use.modality === modality) &&
            (department === null || use.department === department),
        )),
  )
  const mayMake = may(me, 'keep templates')
  return (
    <Page
      title="Templates"
      beside={
        mayMake && (
          <Link
            className="rounded-sm border border-tide bg-tide px-3 py-1.5 font-semibold text-sheet"
            to="/templates/new"
          >
            New template …
          </Link>
        )
      }
    >
      <Messages about="template" />
      <Problem error={templates.error} />
      {templates.isPending && <Waiting what="the templates" />}
      {all.length > 0 && (
        <div className="mt-2 flex flex-wrap items-baseline gap-4">
          <Pick
            inline
            label="For"
            aria-label="Modality"
            value={modality ?? ''}
            onChange={(event) => set({ modality: event.target.value || null })}
            options={[
              { value: '', text: 'any modality' },
              ...modalities.map((modality) => ({
                value: modality,
                text: modality.replace('-', ' '),
              })),
            ]}
          />
          <Pick
            inline
            label=""
            aria-label="Weeks"
            value={weeks ?? ''}
            onChange={(event) => set({ weeks: event.target.value || null })}
            options={[
              { value: '', text: 'any number of weeks' },
              ...lengths.map((length) => ({ value: String(length), text: `${length} weeks` })),
            ]}
          />
          <Pick
            inline
            label=""
            aria-label="Department"
            value={department ?? ''}
            onChange={(event) => set({ department: event.target.value || null })}
            options={[
              { value: '', text: 'any department' },
              ...departments.map((department) => ({ value: department, text: department })),
            ]}
          />
          <Tick
            label="in use only"
            checked={inUse}
            onChange={(on) => set({ inUse: on ? '1' : null })}
          />
        </div>
      )}
      {templates.data?.length === 0 && (
        <p className="py-10 text-ink-2">
          There is no template yet. A template says which modules, pages and activities every course
          has, how they are named, and what the home page shows.
        </p>
      )}
      {all.length > 0 && found.length === 0 && (
        <p className="py-10 text-ink-2">
          No template is for such courses. Take a filter off, or make one.
        </p>
      )}
      <ul className="mt-3 divide-y divide-line border-y border-line">
        {inOrder(found).map(({ template, depth }) => {
          const [newest] = template.versions
          const uses = usesOf(template)
          return (
            <li
              key={template.key}
              className="grid grid-cols-[minmax(0,1fr)_19rem_17rem] items-baseline gap-4 py-3"
              style={{ paddingLeft: depth * 26 }}
            >
              <div>
                <Link
                  className="font-serif text-[18px] font-semibold underline decoration-line-strong underline-offset-4"
                  to={`/templates/${template.key}`}
                >
                  {template.title}
                </Link>
                {template.above && (
                  <span className="text-ink-2">
                    {' '}
                    · a layer on {template.above.title} {template.above.version}
                    {template.above.newest > template.above.version
                      ? `; version ${template.above.newest} is out`
                      : ''}
                  </span>
                )}
                <p className="text-ink-2">
                  {template.summary ||
                    `For ${template.appliesTo.modalities.join(', ').replaceAll('-', ' ') || 'any modality'}, ${template.appliesTo.weeks.join(' or ') || 'any number of'} weeks.`}
                </p>
              </div>
              <p className="text-ink-2">
                {newest ? (
                  <>
                    version {newest.number}, released <Moment at={newest.releasedAt} />
                  </>
                ) : (
                  'never released'
                )}
                {template.changesSinceRelease > 0 && (
                  <span className="block">
                    {plural(template.changesSinceRelease, 'change')} in the draft since
                  </span>
                )}
                {template.openComments > 0 && (
                  <span className="block">{plural(template.openComments, 'open comment')}</span>
                )}
              </p>
              <p className="text-ink-2">
                {plural(template.courses, 'course')} under it
                {template.mayEdit ? '' : ' · yours to read'}
                <span className="block">
                  {uses.length === 0
                    ? 'in use nowhere'
                    : `in use for ${uses
                        .slice(0, 3)
                        .map((use) => `${use.department} ${use.modality.replace('-', ' ')}`)
                        .join(', ')}${uses.length > 3 ? ` and ${uses.length - 3} more` : ''}`}
                </span>
              </p>
            </li>
          )
        })}
      </ul>
    </Page>
  )
}
