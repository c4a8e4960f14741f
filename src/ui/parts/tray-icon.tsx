/** Small drawings for the tools, 16 × 16, of our own. */
const PATHS: Readonly<Record<string, string>> = {
  pick: "M3 2l9 6-4 1 2.5 4.5-1.8 1L6.200 10 3 13z",
  line: "M3 13L13 3M1.500 11.500h3v3h-3zM11.500 1.500h3v3h-3z",
  rectangle: "M2 4h12v8H2z",
  circle: "M14 8a6 6 0 1 1-12 0 6 6 0 1 1 12 0M8 7.500v1M7.500 8h1",
  arc: "M2.500 12A7.500 7.500 0 0 1 13.500 12M1.500 11h2v2h-2zM12.500 11h2v2h-2z",
  ellipse: "M14.500 8a6.500 4 0 1 1-13 0 6.500 4 0 1 1 13 0",
  polygon: "M4.500 2.500h7L15 8l-3.500 5.500h-7L1 8z",
  slot: "M5 4.500h6a3.500 3.500 0 0 1 0 7H5a3.500 3.500 0 0 1 0-7z",
  spline: "M2 12C5 2 8 14 14 4M1 11h2v2H1zM13 3h2v2h-2z",
  point: "M8 2v12M2 8h12M6.500 6.500h3v3h-3z",
  remark: "M2 3h12v7H8l-4 4v-4H2z",
  section: "M2 8h3M7 8h2M11 8h3M3 8V3M13 8V3M1.500 4.500L3 3l1.500 1.500M11.500 4.500L13 3l1.500 1.500M3 13h10",
  detail: "M7 6.500a3 3 0 1 1-6 0 3 3 0 1 1 6 0M15 9.500a4.500 4.500 0 1 1-9 0 4.500 4.500 0 1 1 9 0",
  auxiliary: "M2 14L10 4M5 14L13 4M9 9l5 4M14 13l-3-.500M14 13l-.500-2.500",
  local: "M1.500 3h13v10h-13zM5 3l1 2-1.500 2L6 9l-1 2 1 2M6 5l3 2M6 9l3 2",
  partial: "M2 2h8v12H2zM10 2l2 2-2 2 2 2-2 2 2 2-2 2",
  interrupted: "M1.500 5h5M1.500 11h5M9.500 5h5M9.500 11h5M6 3l1 2-1 3 1 3-1 2M10 3L9 5l1 3-1 3 1 2",
  dimension: "M2 3v10M14 3v10M2 8h12M2 8l3-1.500v3zM14 8l-3-1.500v3z",
  trim: "M2 8h4M10 8h4M8 2v12M6 6l4 4",
  extend: "M2 8h7M14 2v12M9 8l-2.500-2M9 8L6.500 10",
  split: "M1.500 8h5M9.500 8h5M6.500 5v6M9.500 5v6",
  corner: "M3 14V8a5 5 0 0 1 5-5h6M3 3h.01",
  offset: "M2 12V6a4 4 0 0 1 4-4h8M6 14V9a3 3 0 0 1 3-3h5",
  mirror: "M8 1v14M6 4L1.500 12H6zM10 4l4.500 8H10z",
  pattern: "M2 3h3v3H2zM6.500 3h3v3h-3zM11 3h3v3h-3zM2 10h3v3H2zM6.500 10h3v3h-3zM11 10h3v3h-3z",
  transform: "M2 9h5v5H2zM9 2h5v5H9zM6 7l3-3",
  construction: "M2 13l2-2M6 9l2-2M10 5l3-3",
  add: "M3 13V5h10v8zM8 7v4M6 9h4",
  cut: "M2.500 13V5h3v3h5V5h3v8z",
  revolve: "M8 1v14M8 3h4v4H8M13 11a5 3 0 0 1-10 0M3 11l-1-2M3 11l2-1",
  hole: "M2 4h12v9H2zM6 4v9M10 4v9M8 2v13",
  chamfer: "M3 14V8l5-5h6M3 3h.01",
  shell: "M2 3h3v8h6V3h3v11H2z",
  plane: "M2 11l4-7h8l-4 7z",
  axis: "M2 14L14 2M6 10l.01 0M10 6l.01 0M3 9a3 2 45 0 0 4 4",
  mass: "M8 2a6 6 0 1 0 0 12a6 6 0 1 0 0-12M8 2v12M2 8h12",
  colour: "M8 2c3 3 4.500 5 4.500 7.500a4.500 4.500 0 0 1-9 0C3.500 7 5 5 8 2z",
  fit: "M2 5V2h3M11 2h3v3M14 11v3h-3M5 14H2v-3",
  keys: "M2 4h12v8H2zM4.500 6.500h.01M8 6.500h.01M11.500 6.500h.01M5 9.500h6",
  delete: "M3 4h10M6 4V2.500h4V4M4.500 4l.7 9.500h5.600l.7-9.500",
};

export function TrayIcon({ name }: { name: string }) {
  return (
    <svg
      width={16}
      height={16}
      viewBox="0 0 16 16"
      fill="none"
      stroke="currentColor"
      strokeWidth={1.3}
      strokeLinejoin="round"
      strokeLinecap="round"
      aria-hidden
    >
      <path d={PATHS[name]} />
    </svg>
  );
}
