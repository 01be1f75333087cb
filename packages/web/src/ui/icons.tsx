import { ReactNode } from 'react';

/** A line drawing of sixteen units, in the colour of the words beside it, which say what it means. */
const icon = (drawing: ReactNode) =>
  function Icon({ size }: { size: number }) {
    return (
      <svg
        aria-hidden
        width={size}
        height={size}
        viewBox="0 0 16 16"
        fill="none"
        stroke="currentColor"
        strokeWidth={1.4}
        strokeLinecap="round"
        strokeLinejoin="round"
        className="inline-block"
      >
        {drawing}
      </svg>
    );
  };

export const CopyIcon = icon(
  <>
    <rect x="2" y="2" width="8.5" height="9.5" rx="1" />
    <path d="M13.5 5.5v8.5h-8" />
  </>,
);
export const DoneIcon = icon(<path d="M2.5 8.5 6.5 12.5 13.5 3.5" />);
export const FindIcon = icon(
  <>
    <circle cx="6.5" cy="6.5" r="4.5" />
    <path d="M10 10 14.5 14.5" />
  </>,
);
export const NightIcon = icon(<path d="M13.5 9.5A6 6 0 1 1 6.5 2.5 4.8 4.8 0 0 0 13.5 9.5Z" />);
