/** What cannot wait: a shape no side uses, with a stroke that calls. */
export function Octagon({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 26 26" aria-hidden="true" focusable="false">
      <path
        fillRule="evenodd"
        d="M8 1H18L25 8V18L18 25H8L1 18V8ZM11.6 6V15H14.4V6ZM11.6 17.4V20.2H14.4V17.4Z"
        fill="currentColor"
      />
    </svg>
  );
}
