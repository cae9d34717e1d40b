import { roles, type Role } from '@wickerframe/contract/capabilities'

/** What each role is there for. */
const does: Readonly<Record<Role, string>> = {
  designer: 'builds templates, rolls them out, checks courses',
  contributor: 'works on the layers they are let into',
  instructor: 'looks after the courses they teach',
  reviewer: 'reads everything, comments, changes nothing',
  administrator: 'manages people; may do all that designers may',
}

export interface Held {
  roles: readonly Role[]
  departments: readonly string[]
}

const toggled = <T,>(list: readonly T[], value: T): T[] =>
  list.includes(value) ? list.filter((other) => other !== value) : [...list, value]

/** What somebody may do, and for which departments; `departments` are those that courses have. */
export const RolesAndDepartments = ({
  held,
  departments,
  onChange,
}: {
  held: Held
  departments: readonly string[]
  onChange: (held: Held) => void
}) => {
  const offered = [...new Set([...departments, ...held.departments])].sort()
  const isNarrowed = held.roles.some((role) => role === 'designer' || role === 'reviewer')
  return (
    <>
      <fieldset className="mt-4">
        <legend className="text-ink-2">Roles</legend>
        {roles.map((role) => (
          <label key={role} className="flex items-baseline gap-2 py-0.5">
            <input
              type="checkbox"
              checked={held.roles.includes(role)}
              onChange={() => onChange({ ...held, roles: toggled(held.roles, role) })}
            />
            <span className="w-28 font-semibold">{role}</span>
            <span className="text-ink-2">{does[role]}</span>
          </label>
        ))}
      </fieldset>
      {isNarrowed && offered.length > 0 && (
        <fieldset className="mt-3">
          <legend className="text-ink-2">
            Departments whose courses a designer or reviewer sees; none chosen: all
          </legend>
          <div className="flex flex-wrap gap-x-4">
            {offered.map((department) => (
              <label key={department} className="flex items-baseline gap-1.5 py-0.5">
                <input
                  type="checkbox"
                  checked={held.departments.includes(department)}
                  onChange={() =>
                    onChange({ ...held, departments: toggled(held.departments, department) })
                  }
                />
                {department}
              </label>
            ))}
          </div>
        </fieldset>
      )}
    </>
  )
}
