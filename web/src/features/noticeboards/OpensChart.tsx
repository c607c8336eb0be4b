/** How often it was opened on each of the last days. */
export function OpensChart({ opens }: { opens: readonly number[] }) {
  const sum = opens.reduce((all, one) => all + one, 0)
  const most = Math.max(1, ...opens)
  return (
    <span className="flex items-end gap-2 text-[12px] text-cement-700">
      <svg
        viewBox={`0 0 ${opens.length * 4} 16`}
        width={opens.length * 4}
        height={16}
        fill="currentColor"
        aria-hidden="true"
      >
        {opens.map((one, day) => {
          const height = one === 0 ? 0.5 : Math.max(2, (one / most) * 16)
          // biome-ignore lint/suspicious/noArrayIndexKey: the days are their places
          return <rect key={day} x={day * 4} y={16 - height} width={3} height={height} />
        })}
      </svg>
      opened {sum === 1 ? 'once' : `${sum.toLocaleString('en-GB')} times`} in four weeks, {opens.at(-1) ?? 0}{' '}
      today
    </span>
  )
}
