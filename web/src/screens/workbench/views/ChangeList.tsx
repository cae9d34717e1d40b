import type { TemplateChange } from '@wickerframe/core'

/** What differs between two states of a template, in words and in the text itself. */
export const ChangeList = ({ changes }: { changes: readonly TemplateChange[] }) => {
  const byPart = new Map<string, TemplateChange[]>()
  for (const change of changes) byPart.set(change.of, [...(byPart.get(change.of) ?? []), change])
  return (
    <ul className="divide-y divide-line border-y border-line">
      {[...byPart].map(([of, some]) => (
        <li key={of} className="py-1.5">
          <p className="font-semibold">{of}</p>
          <ul className="list-disc pl-5">
            {some.map(({ words, text }, i) => (
              <li key={i}>
                {words}
                {text && (
                  <p className="whitespace-pre-wrap font-serif text-[13px]">
                    {text.map((run, j) =>
                      run.change === 'same' ? (
                        <span key={j}>{run.text}</span>
                      ) : run.change === 'gone' ? (
                        <del key={j} className="bg-rust-soft">
                          {run.text}
                        </del>
                      ) : (
                        <ins key={j} className="bg-tide-soft no-underline">
                          {run.text}
                        </ins>
                      ),
                    )}
                  </p>
                )}
              </li>
            ))}
          </ul>
        </li>
      ))}
    </ul>
  )
}
