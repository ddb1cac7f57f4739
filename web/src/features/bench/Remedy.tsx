import type { Verdict } from '../../api/client';

/** Below a routine that fails: with which choices it would hold. */
export function Remedy({ region, onWhich }: { region: NonNullable<Verdict['holds_when']>; onWhich: () => void }) {
  return (
    <aside className="remedy" aria-label="When it holds">
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
