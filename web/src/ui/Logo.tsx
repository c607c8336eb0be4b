/** Three courses of brick. */
export function Logo({ size = 26 }: { size?: number }) {
  return (
    <svg viewBox="0 0 26 20" width={size} height={(size * 20) / 26} fill="currentColor" aria-hidden="true">
      <path d="M0 0h16v5.6H0ZM18 0h8v5.6h-8ZM0 7.2h7v5.6H0ZM9 7.2h17v5.6H9ZM0 14.4h16V20H0ZM18 14.4h8V20h-8Z" />
    </svg>
  )
}
