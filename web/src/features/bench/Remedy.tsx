import type { Verdict } from '../../api/client';

interface RemedyProps {
  region: NonNullable<Verdict['holds_when']>;
  /** it is of an older text */
  old: boolean;
  onWhich: () => void;
}

/** Below a routine that fails: with which choices it would hold. */
export function Remedy({ region, old, onWhich }: RemedyProps) {
  return (
    <aside className="remedy" data-old={old} aria-label="When it holds">
      {region.text ? (
        <>
          <b>Holds exactly when {region.text}.</b> Narrow the choice to that, or change a number.
        </>
      ) : region.passing === 0 ? (
        <b>It never holds.</b>
      ) : (
        <>
          <b>{region.says}</b>{' '}
          <button type="button" className="to-view" onClick={onWhich}>
            On which?
          </button>
        </>
      )}
    </aside>
  );
}
