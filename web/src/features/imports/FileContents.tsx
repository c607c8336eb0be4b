import { dateText } from '../../reader/dates'
import type { Import } from './importQueries'

type Contents = Pick<
  Import,
  'name' | 'events' | 'series' | 'first' | 'last' | 'leftOut' | 'findings' | 'findingsInAll'
> &
  Partial<Pick<Import, 'same' | 'different' | 'sheet'>>

/** What is in a file that was read and not yet written. */
export function FileContents({ read }: { read: Contents }) {
  const rows: [string, string][] = [
    [
      'Events',
      read.series > 0 ? `${number(read.events)}, ${number(read.series)} of them series` : number(read.events),
    ],
    ['From', read.first ? dateText(read.first) : '–'],
    ['To', read.last ? dateText(read.last) : read.events > 0 ? 'a series in it goes on for ever' : '–'],
    ...hereAlready(read),
    ['Left out', number(read.leftOut)],
  ]
  return (
    <section aria-label="What is in the file">
      {read.name && <h3 className="written mb-2 text-base">{read.name}</h3>}
      <dl className="grid grid-cols-[6.5rem_1fr] border-y border-cement-200">
        {rows.map(([name, value]) => (
          <div
            key={name}
            className="col-span-2 grid grid-cols-subgrid border-b border-cement-200 py-1 last:border-b-0"
          >
            <dt className="text-cement-700">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {read.findingsInAll > 0 && (
        <>
          <h3 className="mt-3 mb-1 text-[13px]">
            Not understood as it stands ({number(read.findingsInAll)})
          </h3>
          <ul className="max-h-52 overflow-y-auto border border-cement-300 bg-surface text-[12px]">
            {read.findings.map((finding) => (
              <li
                key={`${finding.line} ${finding.why}`}
                className="written border-b border-cement-200 px-2 py-1.5 last:border-b-0"
              >
                {finding.leftOut && <b className="text-clash">Left out: </b>}
                {finding.what}, {read.sheet ? 'row' : 'line'} {number(finding.line)}: {finding.why}.
              </li>
            ))}
            {read.findingsInAll > read.findings.length && (
              <li className="px-2 py-1.5">and {number(read.findingsInAll - read.findings.length)} more</li>
            )}
          </ul>
        </>
      )}
    </section>
  )
}

const number = (value: number) => value.toLocaleString('en-GB')

function hereAlready({ same, different }: Contents): [string, string][] {
  if (same === undefined || different === undefined) return []
  const all = same + different
  return [['Here already', all === 0 ? 'none' : `${number(all)}, ${number(different)} of them different`]]
}
