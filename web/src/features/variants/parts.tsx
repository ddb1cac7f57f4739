import type { NumberInText } from '../../api/client';

/** What every panel about neighbouring routines is given. */
export interface PanelProps {
  /** its number on the shelf */
  routine: number;
  /** the text that was proved */
  text: string;
  /** the line of each `?` */
  blanks: number[];
  /** for which others may be tried */
  numbers: NumberInText[];
  /** move the sheet to a line */
  onLine: (line: number) => void;
  /** put a text on the sheet as one change that undo takes back */
  replace: (text: string) => void;
}

export function ToLine({ line, onLine }: { line: number; onLine: (line: number) => void }) {
  return (
    <button type="button" className="to-line" onClick={() => onLine(line)}>
      line {line}
    </button>
  );
}

export const percent = (share: number) =>
  share >= 1 ? 'all' : share === 0 ? 'none' : share < 0.01 ? 'under 1 %' : share > 0.99 ? 'over 99 %' : `${Math.round(share * 100)} %`;
