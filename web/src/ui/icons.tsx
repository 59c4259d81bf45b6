import type { ReactNode, SVGProps } from "react";

type IconProps = SVGProps<SVGSVGElement>;

function Icon({ children, ...rest }: IconProps & { children: ReactNode }) {
  return (
    <svg
      viewBox="0 0 20 20"
      width="20"
      height="20"
      fill="none"
      stroke="currentColor"
      strokeWidth="1.9"
      aria-hidden="true"
      {...rest}
    >
      {children}
    </svg>
  );
}

export const PlusIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M10 4v12M4 10h12" />
  </Icon>
);
export const UpIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M5 12l5-5 5 5" />
  </Icon>
);
export const DownIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M5 8l5 5 5-5" />
  </Icon>
);
export const RemoveIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M5 5l10 10M15 5L5 15" />
  </Icon>
);
export const UndoIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M7 4L3 8l4 4M3 8h8a5 5 0 0 1 0 9H8" />
  </Icon>
);
export const RedoIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M13 4l4 4-4 4M17 8H9a5 5 0 0 0 0 9h3" />
  </Icon>
);
export const PrintIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M6 7V3h8v4M6 14H3V7h14v7h-3M6 11.5h8V17H6z" />
  </Icon>
);
export const StopIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M7 2.5h6L17.5 7v6L13 17.5H7L2.5 13V7z" />
    <path d="M6.5 10h7" strokeWidth="2.4" />
  </Icon>
);
export const CautionIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M10 3l8 14H2z" />
    <path d="M10 8v4M10 13.5v1.5" />
  </Icon>
);
export const NoteIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M4 3h12v10l-4 4H4z" />
    <path d="M7 7h6M7 10.5h4" />
  </Icon>
);
export const GoodIcon = (props: IconProps) => (
  <Icon {...props}>
    <circle cx="10" cy="10" r="7.5" />
    <path d="M6.5 10.5l2.5 2.5 4.5-5.5" />
  </Icon>
);

/** End A is a square, end B a circle, wherever they are shown. */
export function EndMark({ end, size = 22 }: { end: "A" | "B"; size?: number }) {
  return (
    <svg
      viewBox="0 0 22 22"
      width={size}
      height={size}
      role="img"
      aria-label={`end ${end}`}
      className="inline-block shrink-0 align-[-0.28em]"
    >
      {end === "A" ? (
        <rect x="1" y="1" width="20" height="20" fill="currentColor" />
      ) : (
        <circle cx="11" cy="11" r="10.5" fill="currentColor" />
      )}
      <text x="11" y="16" textAnchor="middle" fontSize="14" fontWeight="700" fill="var(--paper)">
        {end}
      </text>
    </svg>
  );
}

/** A bend's number along the pipe: a tab. */
export function BendTab({ number, chosen = false }: { number: number; chosen?: boolean }) {
  return (
    <span
      className={`tape inline-flex h-6 min-w-7 items-center justify-center rounded-full px-1.5 text-[15px] font-bold ${chosen ? "bg-accent text-on-accent" : "bg-ink text-paper"}`}
    >
      {number}
    </span>
  );
}
export const MoreIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M4 10h.01M10 10h.01M16 10h.01" strokeWidth="3.2" strokeLinecap="round" />
  </Icon>
);
export const GripIcon = (props: IconProps) => (
  <Icon {...props}>
    <path d="M7 4h.01M13 4h.01M7 10h.01M13 10h.01M7 16h.01M13 16h.01" strokeWidth="3" strokeLinecap="round" />
  </Icon>
);
