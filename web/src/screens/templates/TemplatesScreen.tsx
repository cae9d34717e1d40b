import { Link } from 'react-router'
import { useTemplates } from '../../api/queries.ts'
import { Moment, Page, plural, Problem, Waiting } from '../../controls/controls.tsx'

export const TemplatesScreen = () => {
  const templates = useTemplates()
  return (
    <Page title="Templates">
      <Problem error={templates.error} />
      {templates.isPending && <Waiting what="the templates" />}
      {templates.data?.length === 0 && <p className="py-10 text-ink-2">There is no template yet. A template says which modules, pages and activities every course has, how they are named, and what the home page shows.</p>}
      <ul className="mt-4 divide-y divide-line border-y border-line">
        {templates.data?.map((template) => (
          <li key={template.key} className="grid grid-cols-[1fr_18rem_16rem] items-baseline gap-4 py-3">
            <div>
              <Link className="font-serif text-[18px] font-semibold underline decoration-line-strong underline-offset-4" to={`/templates/${template.key}`}>{template.title}</Link>
              <p className="text-ink-2">{template.summary}</p>
            </div>
            <p className="text-ink-2">
              {template.versions[0] ? <>version {template.versions[0].number}, released <Moment at={template.versions[0].releasedAt} /></> : 'never released'}
              {template.changesSinceRelease > 0 && <span className="block">{plural(template.changesSinceRelease, 'change')} in the draft since</span>}
            </p>
            <p className="text-ink-2">{plural(template.courses, 'course')} under it{template.mayEdit ? '' : ' · yours to read'}</p>
          </li>
        ))}
      </ul>
    </Page>
  )
}
