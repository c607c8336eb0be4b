import { queryOptions, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, unwrap } from '../../api/client'
import { momentText } from '../../reader/dates'
import { LinkedText } from '../../ui/LinkedText'
import { Logo } from '../../ui/Logo'
import { useTitle } from '../../ui/useTitle'

const mailsQuery = queryOptions({
  queryKey: ['post-room'],
  queryFn: ({ signal }) => unwrap(api.GET('/api/post-room', { signal })),
  staleTime: 0,
  refetchInterval: 2_000,
})

/** The stand-in for outside mail: what Mortar sent, to whom, with links that can be followed. */
export function PostRoomPage() {
  const mails = useQuery(mailsQuery)
  useTitle('Post room')
  const [chosen, setChosen] = useState<string | null>(null)
  const all = mails.data ?? []
  const open = all.find((mail) => mail.id === chosen) ?? all[0]
  return (
    <div className="page">
      <header className="flex items-center gap-3 bg-bar px-4 py-2 text-on-bar">
        <Link to="/" className="flex items-center gap-2.5 font-head text-xl font-bold">
          <Logo />
          Mortar
        </Link>
        <h1 className="font-text text-base font-normal">
          Post room: the mail that would have left this machine
        </h1>
      </header>
      {all.length === 0 ? (
        <main className="p-8 text-cement-700">
          {mails.isSuccess
            ? 'No mail has been sent yet. Give somebody access to a calendar, and the invitation arrives here.'
            : ''}
        </main>
      ) : (
        <main className="grid min-h-0 flex-1 bg-cement-50 sm:grid-cols-[20rem_1fr]" data-fills="true">
          <ul className="overflow-y-auto border-r border-cement-300 bg-cement-100 max-sm:max-h-56">
            {all.map((mail) => (
              <li key={mail.id}>
                <button
                  type="button"
                  aria-current={mail.id === open?.id}
                  onClick={() => setChosen(mail.id)}
                  className="grid w-full gap-0.5 border-b border-cement-300 px-4 py-2.5 text-left aria-[current=true]:bg-surface"
                >
                  <span className="font-bold">{mail.to}</span>
                  <span className="written">{mail.subject}</span>
                  <span className="text-[12px] text-cement-600">{momentText(mail.at)}</span>
                </button>
              </li>
            ))}
          </ul>
          {open && (
            <article className="overflow-y-auto bg-surface p-6">
              <h2 className="written mb-1 text-xl">{open.subject}</h2>
              <p className="mb-5 text-cement-700">
                from {open.from} to {open.to}
                {open.fate && <strong className="block">{open.fate}</strong>}
              </p>
              <p className="written max-w-prose whitespace-pre-line">
                <LinkedText text={open.text} />
              </p>
            </article>
          )}
        </main>
      )}
    </div>
  )
}
