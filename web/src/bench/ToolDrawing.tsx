/** The small drawing of a tool: what it makes in a firm stroke, what it starts from in a thin one. */
export const ToolDrawing = ({
  drawing: [main, thin],
  size,
}: {
  drawing: readonly [main: string, thin?: string];
  size: number;
}) => (
  <svg
    width={size}
    height={size}
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    strokeLinecap="round"
    aria-hidden="true"
  >
    {thin && <path d={thin} strokeWidth="1.2" opacity="0.65" />}
    <path d={main} strokeWidth="2" />
  </svg>
);
