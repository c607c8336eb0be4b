import { useState } from 'react'
import { fieldProblem } from '../../api/problem'
import { Check } from '../../ui/Check'
import { Choice } from '../../ui/Choice'
import { CopyField } from '../../ui/CopyField'
import { TextArea } from '../../ui/TextArea'
import { type BoardView, viewNames } from './noticeboardQueries'
import type { SettingsProps } from './settingsProps'
import { snippet } from './snippet'

/** Inside another website: which may show it, and what to paste there. */
export function ElsewhereFields({ wish, error, onChange, url }: SettingsProps & { url: string | undefined }) {
  const [shape, setShape] = useState<{ height: string; grows: boolean; view: BoardView | '' }>({
    height: '600',
    grows: true,
    view: '',
  })
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-head text-lg font-bold">In another website</legend>
      <Choice
        label="May be shown by"
        value={wish.frames}
        onChange={(frames) => onChange({ frames })}
        options={[
          { value: 'nowhere', label: 'no other website' },
          { value: 'named', label: 'the websites I name' },
          { value: 'anywhere', label: 'any website' },
        ]}
      />
      {wish.frames === 'named' && (
        <TextArea
          label="Websites"
          rows={2}
          value={wish.sites.join('\n')}
          onChange={(sites) => onChange({ sites: sites.split('\n') })}
          problem={fieldProblem(error, 'sites')}
          hint="One on a line, as https://club.example.org"
        />
      )}
      {wish.frames !== 'nowhere' &&
        (url ? (
          <>
            <div className="grid grid-cols-2 gap-2">
              <Choice
                label="Opens with"
                value={shape.view}
                onChange={(view) => setShape({ ...shape, view })}
                options={[
                  { value: '', label: 'its first view' },
                  ...wish.views.map((view) => ({ value: view, label: viewNames[view] })),
                ]}
              />
              <Choice
                label="Height"
                value={shape.height}
                onChange={(height) => setShape({ ...shape, height })}
                options={['300', '450', '600', '800', '1200'].map((height) => ({
                  value: height,
                  label: `${height} px`,
                }))}
              />
            </div>
            <Check
              label="Grows with what is in it"
              hint="By a small script of ours on that page."
              checked={shape.grows}
              onChange={(grows) => setShape({ ...shape, grows })}
            />
            <CopyField
              label="To paste into the page there"
              text={snippet(url, wish.title ?? '', {
                height: Number(shape.height),
                grows: shape.grows,
                ...(shape.view && { view: shape.view }),
              })}
            />
          </>
        ) : (
          <p className="text-[12px] text-cement-700">Save it to get what to paste there.</p>
        ))}
    </fieldset>
  )
}
