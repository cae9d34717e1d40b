import { useState } from 'react'
import { HostName, hostOf, modalities, type Template } from '@wickerframe/core'
import { Pick } from '../../../controls/controls.tsx'
import { NumberLine, TextLine, TextLines, Tick } from '../../../controls/typed.tsx'
import { useDraftStore } from '../draftStore.ts'
import { NavigationEntries } from './NavigationEntries.tsx'

/** What the template says of the course as a whole: what it is for, how courses are named and opened, settings, navigation. */
export const CourseSettingsView = ({ template }: { template: Template }) => {
  const { edit, mayEdit } = useDraftStore()
  const set = (field: string[], was: unknown, value: unknown) =>
    void edit({ edit: 'set-field', part: null, field, was: was ?? null, value: value ?? null })
  const { appliesTo, naming, opening, settings } = template
  const listOf = (text: string) =>
    text
      .split(',')
      .map((piece) => piece.trim())
      .filter((piece) => piece !== '')
  const [hostsTyped, setHostsTyped] = useState('')
  /** Hosts as they were typed, or taken from an address. */
  const hostsIn = (text: string): string[] => [
    ...new Set(listOf(text).map((typed) => hostOf(typed) ?? typed.toLowerCase())),
  ]
  const wrongHost = (text: string): string | null =>
    hostsIn(text).find((host) => !HostName.safeParse(host).success) ?? null
  const setHosts = (text: string) => {
    setHostsTyped(text)
    const hosts = hostsIn(text)
    if (wrongHost(text) === null)
      set(['frameHosts'], template.frameHosts, hosts.length > 0 ? hosts : null)
  }
  const chosen = (
    field: 'seenBy' | 'arranged' | 'picture',
    words: string,
    options: readonly { value: string; text: string }[],
  ) => (
    <Pick
      inline
      label={words}
      value={settings[field] ?? ''}
      onChange={(event) => set(['settings', field], settings[field], event.target.value || null)}
      options={[{ value: '', text: 'not said' }, ...options]}
    />
  )
  const setting = (
    field: 'gradesShown' | 'joinByKey' | 'completionTracked' | 'notices',
    words: string,
  ) => (
    <Pick
      inline
      label={words}
      value={settings[field] === undefined ? '' : settings[field] ? 'yes' : 'no'}
      onChange={(event) =>
        set(
          ['settings', field],
          settings[field],
          event.target.value === '' ? null : event.target.value === 'yes',
        )
      }
      options={[
        { value: '', text: 'not said' },
        { value: 'yes', text: 'yes' },
        { value: 'no', text: 'no' },
      ]}
    />
  )
  return (
    <fieldset disabled={!mayEdit} className="mt-3 grid gap-6 lg:grid-cols-2">
      <section className="grid content-start gap-3 bg-sheet p-4">
        <h2 className="text-[18px]">What it is, and for which courses</h2>
        <TextLine
          label="Title"
          value={template.title}
          onDone={(title) => title.trim() !== '' && set(['title'], template.title, title)}
        />
        <TextLines
          label="Summary"
          value={template.summary}
          onDone={(summary) => set(['summary'], template.summary, summary)}
        />
        <div className="flex flex-wrap gap-x-4">
          <span className="text-ink-2">Modality</span>
          {modalities.map((modality) => (
            <Tick
              key={modality}
              label={modality.replace('-', ' ')}
              checked={appliesTo.modalities.includes(modality)}
              onChange={(on) =>
                set(
                  ['appliesTo', 'modalities'],
                  appliesTo.modalities,
                  on
                    ? [...appliesTo.modalities, modality]
                    : appliesTo.modalities.filter((other) => other !== modality),
                )
              }
            />
          ))}
        </div>
        <div className="flex flex-wrap gap-3">
          <TextLine
            label="Weeks"
            hint="apart by commas; any number when empty"
            value={appliesTo.weeks.join(', ')}
            onDone={(text) =>
              set(['appliesTo', 'weeks'], appliesTo.weeks, [
                ...new Set(
                  listOf(text)
                    .map(Number)
                    .filter((weeks) => Number.isInteger(weeks) && weeks > 0 && weeks <= 60),
                ),
              ])
            }
          />
          <TextLine
            label="Departments"
            hint="all when empty"
            value={appliesTo.departments.join(', ')}
            onDone={(text) =>
              set(['appliesTo', 'departments'], appliesTo.departments, listOf(text))
            }
          />
          <NumberLine
            label="Units"
            least={1}
            most={30}
            value={template.units}
            onDone={(units) => set(['units'], template.units, units)}
          />
        </div>
        <Tick
          label="half built: parts are still to come, in a later version"
          checked={template.halfBuilt}
          onChange={(on) => set(['halfBuilt'], template.halfBuilt, on)}
        />
        <TextLine
          label="Hosts whose films and other content are shown within pages"
          hint="apart by commas, e.g. film.college.example; of any other, students follow a link"
          value={(template.frameHosts ?? []).join(', ')}
          problem={
            wrongHost(hostsTyped) === null
              ? null
              : `“${wrongHost(hostsTyped)}” is not the name of a host`
          }
          onDone={setHosts}
        />
      </section>
      <section className="grid content-start gap-3 bg-sheet p-4">
        <h2 className="text-[18px]">Names, opening, settings</h2>
        <TextLine
          label="Courses are named"
          value={naming.courseName}
          onDone={(name) => set(['naming', 'courseName'], naming.courseName, name)}
        />
        <TextLine
          label="Short label"
          value={naming.courseLabel}
          onDone={(label) => set(['naming', 'courseLabel'], naming.courseLabel, label)}
        />
        <div className="flex flex-wrap items-end gap-3">
          <Pick
            label="Modules open"
            value={opening.follow}
            onChange={(event) => set(['opening', 'follow'], opening.follow, event.target.value)}
            options={[
              { value: 'week-by-week', text: 'week by week' },
              { value: 'all-at-once', text: 'all on opening day' },
            ]}
          />
          <NumberLine
            label="Days ahead"
            most={60}
            value={opening.leadDays}
            onDone={(days) => set(['opening', 'leadDays'], opening.leadDays, days ?? 0)}
          />
          <TextLine
            label="Language of the course"
            hint="a tag such as en or fr-CA"
            value={settings.language ?? ''}
            onDone={(language) =>
              set(['settings', 'language'], settings.language, language || null)
            }
          />
        </div>
        <div className="grid gap-1">
          {setting('gradesShown', 'Students see their running grade')}
          {setting('completionTracked', 'What students finished is tracked')}
          {setting('notices', 'Announcements also go out by e-mail')}
          {setting('joinByKey', 'Anybody with the course’s key may join')}
          {chosen('seenBy', 'Who may see it', [
            { value: 'enrolled', text: 'who is enrolled' },
            { value: 'institution', text: 'everybody at the institution' },
            { value: 'anybody', text: 'anybody' },
          ])}
          {chosen('arranged', 'Students find its contents', [
            { value: 'by-topic', text: 'by topic' },
            { value: 'by-date', text: 'by date' },
          ])}
          {chosen(
            'picture',
            'The picture by which it is known',
            template.assets.map(({ key, fileName, alternativeText }) => ({
              value: key,
              text: alternativeText || fileName,
            })),
          )}
        </div>
      </section>
      <NavigationEntries template={template} set={set} />
    </fieldset>
  )
}
