import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Me, RuleUse } from '@wickerframe/contract'
import { may } from '@wickerframe/contract/capabilities'
import { call } from '../../../api/client.ts'
import { Button, Problem, Waiting } from '../../../controls/controls.tsx'
import { ConformancePage } from '../ConformancePage.tsx'
import { RuleDialog } from './RuleDialog.tsx'

const columns = [
  ['found', 'found', 'places, each time it came'],
  ['planned', 'mended by a plan', 'places mended by a plan of mends'],
  ['otherwise', 'gone otherwise', 'places that people or a rollout mended'],
  ['waived', 'waived', 'waivers in force'],
  ['answered', 'answered', 'places answered for with “it is right so”'],
  ['open', 'open', 'places open now'],
  ['openLong', 'a fortnight open', 'places open for a fortnight and longer'],
] as const satisfies readonly (readonly [keyof RuleUse, string, string])[]

const few = 15

/** How the rules fared: those that most speaks against first, with the press that lowers one or sets it otherwise. */
export const RulesScreen = ({ me }: { me: Me }) => {
  const use = useQuery({ queryKey: ['rules', 'use'], queryFn: () => call('ruleUse') })
  const [setting, setSetting] = useState<RuleUse | null>(null)
  const [all, setAll] = useState(false)
  const rules = use.data ?? []
  return (
    <ConformancePage title="How the rules fared" here="rules">
      <Problem error={use.error} />
      {use.isPending && <Waiting what="how the rules fared" />}
      {use.data && (
        <>
          <p className="max-w-[52rem] text-ink-2">
            A rule that is waived, answered for and left open more than it is mended cries wolf, and
            people stop looking. Those that most speaks against come first.
          </p>
          <div className="mt-3 overflow-x-auto">
            <table className="w-full text-left">
              <thead className="text-[13px] text-ink-2">
                <tr className="align-bottom">
                  <th scope="col" className="font-normal">
                    rule
                  </th>
                  {columns.map(([key, title, explains]) => (
                    <th
                      key={key}
                      scope="col"
                      title={explains}
                      className="w-20 pl-3 text-right font-normal leading-tight"
                    >
                      {title}
                    </th>
                  ))}
                  <th scope="col">
                    <span className="sr-only">what can be done</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {(all ? rules : rules.slice(0, few)).map((rule) => (
                  <tr key={rule.id} className="border-t border-line align-baseline">
                    <th scope="row" className="py-1 font-normal">
                      {rule.title} <span className="text-[13px] text-ink-2">{rule.group}</span>
                    </th>
                    {columns.map(([key]) => (
                      <td
                        key={key}
                        className={`pl-3 text-right tabular-nums ${isAgainst(key) && rule[key] > 0 ? 'font-semibold text-rust' : ''}`}
                      >
                        {rule[key] === 0 ? <span className="text-ink-2">–</span> : rule[key]}
                      </td>
                    ))}
                    <td className="pl-4 text-right">
                      {may(me, 'edit every draft') && (
                        <Button
                          shape="word"
                          className="py-0.5!"
                          aria-label={`Set “${rule.title}” otherwise`}
                          onClick={() => setSetting(rule)}
                        >
                          set …
                        </Button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {rules.length > few && (
            <Button shape="word" onClick={() => setAll(!all)}>
              {all ? 'show the first ones' : `show all ${rules.length} rules`}
            </Button>
          )}
        </>
      )}
      {setting && <RuleDialog rule={setting} onClose={() => setSetting(null)} />}
    </ConformancePage>
  )
}

const isAgainst = (key: (typeof columns)[number][0]): boolean =>
  key === 'waived' || key === 'answered' || key === 'openLong'
