import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState, type SyntheticEvent } from 'react'
import { peopleOf, type CoursePerson, type Duty } from '@wickerframe/core'
import type { CourseDetail, CoursePeople, MeInCourse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Field, Pick, plural, Problem } from '../../../controls/controls.tsx'
import { modulesToOwn, withDuty, without, withModuleOwner, withPerson } from './editing.ts'

const dutyWords: Readonly<Record<Duty, string>> = {
  owner: 'Owner: the one who must act',
  instructor: 'Instructor',
  assistant: 'Assistant',
}

/** Who teaches a course, who helps, and whose move a module is. */
export const CoursePeopleTab = ({ course, me }: { course: CourseDetail; me: MeInCourse }) => {
  const client = useQueryClient()
  const stored: CoursePeople = {
    people: peopleOf(course.facts),
    moduleOwners: course.facts.moduleOwners,
  }
  const [edited, setEdited] = useState<CoursePeople | null>(null)
  const shown = edited ?? stored
  const save = useMutation({
    mutationFn: () =>
      call('decideCoursePeople', { at: { course: course.id }, body: { ...shown, was: stored } }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['course', String(course.id)] })
      setEdited(null)
    },
  })
  const keeps = may(me, 'keep courses')
  const decides = keeps || (may(me, 'decide for course') && course.owner === me.email)
  const changed = JSON.stringify(shown) !== JSON.stringify(stored)
  return (
    <>
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <section>
          <h2 className="text-[17px]">People</h2>
          <People
            shown={shown}
            decides={decides}
            keeps={keeps}
            onChange={(next) => setEdited(next)}
          />
          {decides && (
            <AddPerson
              shown={shown}
              keeps={keeps}
              onAdd={(person) => setEdited(withPerson(shown, person))}
            />
          )}
          <p className="mt-3 max-w-[60ch] text-ink-2">
            {decides
              ? keeps
                ? 'What is decided here stays when a roster file says otherwise. Who may work in the course on the platform is decided there.'
                : 'As its owner you say who helps, who owns it next and who acts for which module. Who teaches it, designers decide.'
              : 'Designers and the owner of the course decide on this.'}
          </p>
        </section>
        <ModuleOwners course={course} shown={shown} decides={decides} onChange={setEdited} />
      </div>
      <div className="mt-4">
        <Problem error={save.error} />
      </div>
      {changed && (
        <p className="mt-3 flex gap-3">
          <Button shape="main" disabled={save.isPending} onClick={() => save.mutate()}>
            Save people
          </Button>
          <Button onClick={() => setEdited(null)}>Put back</Button>
        </p>
      )}
      {save.isSuccess && !changed && (
        <p role="status" className="mt-2 text-ink-2">
          Saved. Whoever got something new to do is told.
        </p>
      )}
    </>
  )
}

const People = ({
  shown,
  decides,
  keeps,
  onChange,
}: {
  shown: CoursePeople
  decides: boolean
  keeps: boolean
  onChange: (next: CoursePeople) => void
}) => {
  if (shown.people.length === 0)
    return (
      <p className="mt-1 text-ink-2">
        Nobody teaches it yet, so nobody is asked to mend anything. The roster names people, or they
        are added here.
      </p>
    )
  return (
    <ul className="mt-1">
      {shown.people.map((person) => {
        const { name, email, duty } = person
        const modules = Object.values(shown.moduleOwners).filter((owner) => owner === email).length
        const removable = keeps || duty === 'assistant'
        return (
          <li
            key={email}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line py-2"
          >
            <span className="min-w-[14rem] flex-1">
              <span className="font-semibold">{name}</span>
              <span className="block text-ink-2 [overflow-wrap:anywhere]">
                {email}
                {modules > 0 && `, acts for ${plural(modules, 'module')}`}
              </span>
            </span>
            {decides ? (
              <select
                aria-label={`Duty of ${name}`}
                className="border border-line-strong bg-sheet px-2 py-1"
                value={duty}
                onChange={(event) => onChange(withDuty(shown, email, event.target.value as Duty))}
              >
                {dutiesFor(person, keeps).map((one) => (
                  <option key={one} value={one}>
                    {dutyWords[one]}
                  </option>
                ))}
              </select>
            ) : (
              <span>{dutyWords[duty]}</span>
            )}
            {decides && removable && (
              <Button
                shape="word"
                aria-label={`Take out ${name}`}
                onClick={() => onChange(without(shown, email))}
              >
                take out
              </Button>
            )}
          </li>
        )
      })}
    </ul>
  )
}

/** What somebody can be made: an owner of the course makes nobody a teacher of it, nor the other way round. */
const dutiesFor = ({ duty }: CoursePerson, keeps: boolean): readonly Duty[] =>
  keeps
    ? ['owner', 'instructor', 'assistant']
    : duty === 'assistant'
      ? ['assistant']
      : duty === 'owner'
        ? ['owner']
        : ['owner', 'instructor']

const AddPerson = ({
  shown,
  keeps,
  onAdd,
}: {
  shown: CoursePeople
  keeps: boolean
  onAdd: (person: CoursePerson) => void
}) => {
  const [name, setName] = useState('')
  const [email, setEmail] = useState('')
  const [duty, setDuty] = useState<Duty>('assistant')
  const known = shown.people.find((person) => person.email === email.trim().toLowerCase())
  const add = (event: SyntheticEvent) => {
    event.preventDefault()
    if (known) return
    onAdd({ name: name.trim(), email: email.trim(), duty })
    setName('')
    setEmail('')
  }
  return (
    <form className="mt-2 flex flex-wrap items-end gap-3 border-t border-line pt-3" onSubmit={add}>
      <Field
        label="Name"
        required
        maxLength={200}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        label="E-mail"
        type="email"
        required
        maxLength={200}
        value={email}
        onChange={(event) => setEmail(event.target.value)}
      />
      {keeps && (
        <Pick
          label="As"
          value={duty}
          onChange={(event) => setDuty(event.target.value as Duty)}
          options={[
            { value: 'assistant', text: 'assistant' },
            { value: 'instructor', text: 'instructor' },
          ]}
        />
      )}
      <Button type="submit">{keeps ? 'Add' : 'Add as assistant'}</Button>
      {known && (
        <p role="status" className="w-full text-ink-2">
          {known.name} is in the course already.
        </p>
      )}
    </form>
  )
}

const ModuleOwners = ({
  course,
  shown,
  decides,
  onChange,
}: {
  course: CourseDetail
  shown: CoursePeople
  decides: boolean
  onChange: (next: CoursePeople) => void
}) => {
  const modules = modulesToOwn(course.snapshot, course.result, shown.moduleOwners)
  const owner = shown.people.find(({ duty }) => duty === 'owner')
  return (
    <section>
      <h2 className="text-[17px]">Who acts for which module</h2>
      <p className="text-ink-2">
        {owner
          ? `${owner.name} acts for the course, and for every module without an owner of its own.`
          : 'Nobody owns the course.'}
      </p>
      {modules.length === 0 && (
        <p className="mt-1 text-ink-2">
          The course was not read yet, or has no modules. Press “Read again”.
        </p>
      )}
      <ul className="mt-1">
        {modules.map(({ key, name, depth }) => {
          const email = shown.moduleOwners[key]
          const person = shown.people.find((one) => one.email === email)
          return (
            <li key={key} className="flex items-center gap-4 border-t border-line py-1">
              <span className={`flex-1 ${depth > 0 ? 'pl-5' : ''}`}>{name}</span>
              {decides ? (
                <select
                  aria-label={`Acts for ${name}`}
                  className="w-[16rem] border border-line-strong bg-sheet px-2 py-0.5"
                  value={email ?? ''}
                  onChange={(event) =>
                    onChange(withModuleOwner(shown, key, event.target.value || null))
                  }
                >
                  <option value="">the owner of the course</option>
                  {shown.people
                    .filter(({ duty }) => duty !== 'owner' || email !== undefined)
                    .map((one) => (
                      <option key={one.email} value={one.email}>
                        {one.name}
                      </option>
                    ))}
                </select>
              ) : (
                <span className="text-ink-2">{person?.name ?? ''}</span>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}
