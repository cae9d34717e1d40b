import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { copyTemplate, freshKey, modalities } from '@wickerframe/core'
import type { TemplateDraft, VersionSummary } from '@wickerframe/contract'
import { addressOf, call } from '../../../api/client.ts'
import { useCourses, useTemplates } from '../../../api/queries.ts'
import { Button, Field, Moment, Pick, plural, Problem } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import { ChangeList } from './ChangeList.tsx'

/** For which departments and modalities a version is the one in use. */
const Uses = ({
  template,
  version,
  departments,
}: {
  template: TemplateDraft
  version: VersionSummary
  departments: readonly string[]
}) => {
  const client = useQueryClient()
  const put = useMutation({
    mutationFn: (use: { department: string; modality: string; inUse: boolean }) =>
      call('useVersion', {
        at: { template: template.key, version: version.number },
        body: { uses: [use] },
      }),
    onSuccess: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: ['template', template.key] }),
        client.invalidateQueries({ queryKey: ['templates'] }),
      ]),
  })
  const shown = modalities.filter(
    (modality) =>
      template.appliesTo.modalities.length === 0 ||
      template.appliesTo.modalities.includes(modality),
  )
  const mine = departments.filter(
    (department) =>
      template.appliesTo.departments.length === 0 ||
      template.appliesTo.departments.includes(department),
  )
  return (
    <div className="py-2">
      <Problem error={put.error} />
      {shown.map((modality) => (
        <div key={modality} className="flex flex-wrap gap-x-4">
          <span className="w-24 text-ink-2">{modality.replace('-', ' ')}</span>
          {mine.map((department) => (
            <Tick
              key={department}
              label={department}
              disabled={!template.mayRelease || put.isPending}
              checked={version.uses.some(
                (use) => use.department === department && use.modality === modality,
              )}
              onChange={(inUse) => put.mutate({ department, modality, inUse })}
            />
          ))}
        </div>
      ))}
    </div>
  )
}

/** Names people of a template, and lets others be among them. */
const Named = ({
  title,
  explains,
  nobody,
  people,
  label,
  action,
  template,
  route,
}: {
  title: string
  explains: string
  nobody: string
  people: TemplateDraft['contributors']
  /** What is asked for, and what is done with it. */
  label: string
  action: string
  template: TemplateDraft
  route: 'letContribute' | 'letLookAfter'
}) => {
  const client = useQueryClient()
  const [email, setEmail] = useState('')
  const put = useMutation({
    mutationFn: (who: { email: string; may: boolean }) =>
      call(route, { at: { template: template.key }, body: who }),
    onSuccess: () => {
      setEmail('')
      return client.invalidateQueries({ queryKey: ['template', template.key] })
    },
  })
  return (
    <section className="mt-6">
      <h2 className="text-[18px]">{title}</h2>
      <p className="text-ink-2">{explains}</p>
      <Problem error={put.error} />
      <ul>
        {people.map((person) => (
          <li key={person.email} className="flex flex-wrap items-baseline gap-3">
            {person.name}, {person.email}
            {template.mayRelease && (
              <Button
                shape="word"
                aria-label={`${person.name}: no longer`}
                onClick={() => put.mutate({ email: person.email, may: false })}
              >
                no longer
              </Button>
            )}
          </li>
        ))}
      </ul>
      {people.length === 0 && <p className="text-ink-2">{nobody}</p>}
      {template.mayRelease && (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            put.mutate({ email: email.trim(), may: true })
          }}
        >
          <Field
            label={label}
            type="email"
            value={email}
            onChange={(event) => setEmail(event.target.value)}
          />
          <Button type="submit" disabled={email.trim() === '' || put.isPending}>
            {action}
          </Button>
        </form>
      )}
    </section>
  )
}

/** Who looks after this template. */
const Designers = ({ template }: { template: TemplateDraft }) => (
  <Named
    title="Who looks after it"
    explains="Every designer may change it; these are told when another one does, and when a version is released."
    nobody="Nobody is told."
    people={template.designers}
    label="E-mail of a designer"
    action="Let them look after it"
    template={template}
    route="letLookAfter"
  />
)

/** Who contributes to this template, and to no other it is built on. */
const Contributors = ({ template }: { template: TemplateDraft }) => (
  <Named
    title="Who contributes"
    explains="Contributors edit this template’s draft, and neither what it is built on nor any other; a designer releases it."
    nobody="Nobody but designers."
    people={template.contributors}
    label="E-mail of a contributor"
    action="Let them contribute"
    template={template}
    route="letContribute"
  />
)

/** Versions: which there are, which is in use where, and what differs between any two. */
export const VersionsView = ({ template }: { template: TemplateDraft }) => {
  const client = useQueryClient()
  const navigate = useNavigate()
  const courses = useCourses()
  const templates = useTemplates()
  const newest = template.versions[0]?.number ?? null
  const [from, setFrom] = useState(String(newest ?? 'draft'))
  const [to, setTo] = useState('draft')
  const changes = useQuery({
    queryKey: ['template', template.key, 'compare', from, to, template.draftRevision],
    queryFn: () => call('compareVersions', { at: { template: template.key }, query: { from, to } }),
    enabled: from !== to,
  })
  const retire = useMutation({
    mutationFn: ({ number, retired }: { number: number; retired: boolean }) =>
      call('retireVersion', { at: { template: template.key, version: number }, body: { retired } }),
    onSuccess: () =>
      Promise.all([
        client.invalidateQueries({ queryKey: ['template', template.key] }),
        client.invalidateQueries({ queryKey: ['templates'] }),
      ]),
  })
  const copy = useMutation({
    mutationFn: async (number: number) => {
      const document = await call('readVersion', {
        at: { template: template.key, version: number },
      })
      const title = `${template.title}, copy of version ${number}`.slice(0, 200)
      return call('addTemplate', {
        body: copyTemplate(
          document,
          freshKey(title, new Set(templates.data?.map(({ key }) => key))),
          title,
        ),
      })
    },
    onSuccess: async ({ key }) => {
      await client.invalidateQueries({ queryKey: ['templates'] })
      await navigate(`/templates/${key}`)
    },
  })
  const departments = [...new Set((courses.data ?? []).map((course) => course.department))].sort()
  const options = [
    ...template.versions.map((version) => ({
      value: String(version.number),
      text: `version ${version.number}`,
    })),
    { value: 'draft', text: 'the draft' },
  ]
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-2">
      <section>
        <h2 className="text-[18px]">Versions</h2>
        <Problem error={retire.error ?? copy.error} />
        {template.versions.length === 0 && (
          <p className="text-ink-2">
            None yet. The draft becomes version 1 when it is released; from then on that version
            never changes.
          </p>
        )}
        <ul className="mt-2 divide-y divide-line border-y border-line">
          {template.versions.map((version) => (
            <li key={version.number} className="py-2">
              <p>
                <span className="font-semibold">Version {version.number}</span>
                {version.retired && ' · retired'}{' '}
                <span className="text-ink-2">
                  released <Moment at={version.releasedAt} /> by {version.by};{' '}
                  {plural(version.courses, 'course')} under it
                </span>
              </p>
              {version.note !== '' && <p>{version.note}</p>}
              <p className="text-ink-2">
                {version.uses.length === 0
                  ? 'in use nowhere'
                  : `in use for ${version.uses.map((use) => `${use.department} ${use.modality.replace('-', ' ')}`).join(', ')}`}
              </p>
              <details>
                <summary className="cursor-pointer text-tide underline underline-offset-2">
                  where it is in use
                </summary>
                <Uses template={template} version={version} departments={departments} />
              </details>
              <p className="flex flex-wrap gap-4">
                {template.mayRelease && (
                  <Button
                    shape="word"
                    onClick={() =>
                      retire.mutate({ number: version.number, retired: !version.retired })
                    }
                  >
                    {version.retired ? 'bring back' : 'retire'}
                  </Button>
                )}
                {template.mayRelease && (
                  <Button
                    shape="word"
                    disabled={copy.isPending}
                    onClick={() => copy.mutate(version.number)}
                  >
                    copy as a new draft
                  </Button>
                )}
                {template.mayRelease && (
                  <Link
                    className="py-1.5 text-tide underline underline-offset-2"
                    to={`/templates/new?way=layer&on=${template.key}&version=${version.number}`}
                  >
                    build a layer on it
                  </Link>
                )}
                <a
                  className="py-1.5 text-tide underline underline-offset-2"
                  href={addressOf('readVersion', {
                    at: { template: template.key, version: version.number },
                  })}
                  download={`${template.key}-${version.number}.json`}
                >
                  as a file
                </a>
              </p>
            </li>
          ))}
        </ul>
        <Designers template={template} />
        <Contributors template={template} />
      </section>
      <section>
        <h2 className="text-[18px]">What differs</h2>
        <div className="mt-1 flex gap-3">
          <Pick
            inline
            label="from"
            value={from}
            onChange={(event) => setFrom(event.target.value)}
            options={options}
          />
          <Pick
            inline
            label="to"
            value={to}
            onChange={(event) => setTo(event.target.value)}
            options={options}
          />
        </div>
        <Problem error={changes.error} />
        {from === to ? (
          <p className="py-2 text-ink-2">Choose two.</p>
        ) : changes.data?.length === 0 ? (
          <p className="py-2 text-ink-2">Nothing differs.</p>
        ) : (
          changes.data && (
            <div className="mt-2">
              <ChangeList changes={changes.data} />
            </div>
          )
        )}
      </section>
    </div>
  )
}
