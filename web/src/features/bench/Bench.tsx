import { useLocalStorage } from '@mantine/hooks';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { Routine, Verdict } from '../../api/client';
import { languageQuery, routinesQuery, type Asked } from '../../api/queries';
import { Tabs } from '../../ui/Tabs';
import { useSharedTable } from '../table/shared';
import { VIEWS, Variants, type View } from '../variants/Variants';
import { Foot } from './Foot';
import { Hand } from './Hand';
import { NotesPanel } from './NotesPanel';
import { Remedy } from './Remedy';
import { SaveWords, TwoTexts } from './SaveFoot';
import { Sheet, type SheetHandle } from './Sheet';
import { StepsDrawer } from './StepsDrawer';
import { StrandsView } from './StrandsView';
import { TablePanel } from './TablePanel';
import { FirstProof, useFirstProof } from '../first/FirstProof';
import { VerdictBar } from './VerdictBar';
import { Versions } from './Versions';
import { anyPath, choosing, choosingTogether, FIRST, inHand } from './asked';
import { keepLine, lastLine } from './lastLine';
import { useAutosave } from './useAutosave';
import { useBenchKeys } from './useBenchKeys';
import { useDress } from './useDress';
import { useKeepWords } from './useKeepWords';
import { usePlayback } from './usePlayback';
import { useQuestions } from './useQuestions';
import './bench.css';

/** Always the same one: what is shown of nothing is not drawn anew. */
const NONE: never[] = [];

/** The bench: the sheet, the verdict on it, and one path played on the table. */
export function Bench({ routine }: { routine: Routine }) {
  const sheet = useRef<SheetHandle>(null);
  const client = useQueryClient();
  const go = useNavigate();
  const replace = useCallback((other: string) => sheet.current?.replace(other), []);
  const save = useAutosave(routine, replace);
  const [text, setText] = useState(save.opening);
  const [asked, setAsked] = useState<Asked>(FIRST);
  const [view, setView] = useState<View>('table');
  const [open, setOpen] = useState<'steps' | 'versions' | null>(null);
  const [hovered, setHovered] = useState(0);
  const [dense, setDense] = useLocalStorage({ key: 'gp-closer-lines', defaultValue: false });
  const [keepWords, setKeepWords] = useKeepWords();
  const [first, setFirst] = useFirstProof();
  useEffect(() => {
    window.dispatchEvent(new Event('resize')); // the sheet measures its lines anew
  }, [dense]);
  const { data: kinds } = useQuery(languageQuery());
  const found = useQuestions({ routine: routine.id, text, asked, keepWords, breaks: view === 'breaks' });
  const { settled, verdict, reads, asRead, readAs, proving, play, playIsOld, noted } = found;
  const playback = usePlayback(play);
  const { index, last, step, goTo, goToLine, run } = playback;
  const frame = play?.frames[index];

  const { change, saved } = save;
  const onText = useCallback(
    (now: string) => {
      setText(now);
      change(now);
    },
    [change],
  );
  useEffect(
    () => () => {
      void client.invalidateQueries({ queryKey: routinesQuery().queryKey });
    },
    [client],
  );

  // What a desk sends comes as one change to what lies here, so that undo takes it back.
  const sentHere = useLocation().state as { text?: string } | null;
  useEffect(() => {
    if (sentHere?.text === undefined) return;
    sheet.current?.replace(sentHere.text);
    sheet.current?.focus();
    void go('.', { replace: true, state: null });
  }, [sentHere, go]);

  const comesBack = useRef(sentHere?.text === undefined ? lastLine(routine.id) : 0);
  useEffect(() => {
    if (comesBack.current) sheet.current?.goToLine(comesBack.current);
  }, []);
  const atLine = useCallback(
    (line: number) => {
      keepLine(routine.id, line);
      goToLine(line);
    },
    [goToLine, routine.id],
  );

  const worst = useCallback(() => {
    setAsked({ ...FIRST, worst: true });
    run();
  }, [run]);
  const another = useCallback(() => {
    setAsked(anyPath());
    run();
  }, [run]);
  const hand = useMemo(() => ({ decisions: play?.decisions, isOld: playIsOld }), [play, playIsOld]);
  const decisions = useMemo(() => inHand(asked, hand), [asked, hand]);
  // The controls in the hand are drawn anew when a decision changes, not with every key.
  const latest = useRef(hand);
  useEffect(() => {
    latest.current = hand;
  }, [hand]);
  const choose = useCallback((key: string, value: number) => {
    const now = latest.current;
    setAsked((before) => choosing(before, now, key, value));
  }, []);
  const together = useCallback((keys: string[], byChance: boolean) => {
    const now = latest.current;
    setAsked((before) => choosingTogether(before, now, keys, byChance));
  }, []);
  // What is shown and printed is what the shelf has: the last keys are saved first.
  const show = useCallback(
    (event?: { preventDefault: () => void }) => {
      event?.preventDefault();
      void saved().then(
        () => go(`/show/${routine.id}`),
        // Why it is not saved stands at the foot.
        () => null,
      );
    },
    [saved, go, routine.id],
  );
  const steps = useCallback(() => setOpen('steps'), []);
  const close = useCallback(() => setOpen(null), []);
  const versions = useCallback(() => setOpen('versions'), []);
  const insert = useCallback((sentence: string) => sheet.current?.insertStep(sentence), []);
  const onLine = useCallback((line: number) => sheet.current?.goToLine(line), []);
  useBenchKeys(kinds, { another, worst, step, steps, versions, show, view: setView, insert });

  const shownLine = frame?.line ?? 0;
  const failing = play?.stuck_at ?? (play?.failures.length && index === last ? shownLine : 0);
  const dress = useDress(found, text, { current: hovered || shownLine, failing });
  useSharedTable(routine.id, { title: routine.title, play, index, last, running: playback.running }, playback);
  const saveWords = useMemo(() => <SaveWords saved={save.now} gone={save.gone} />, [save.now, save.gone]);
  const followed = (reads ? undefined : verdict?.landing?.card) ?? play?.target ?? undefined;
  const drawn = found.strands?.strands;

  return (
    <div className="bench">
      <VerdictBar
        verdict={verdict}
        faults={found.faults}
        reads={reads}
        keepWords={keepWords}
        onKeepWords={setKeepWords}
        onAccept={asRead === null ? null : () => replace(asRead)}
        old={proving}
        progress={found.progress}
        trouble={found.trouble}
        opinion={found.opinion}
        told={found.told}
        onShow={worst}
        onLine={onLine}
        onStop={found.stop}
        onLonger={found.longer}
      />
      {save.now.conflict && <TwoTexts conflict={save.now.conflict} keepMine={save.keepMine} takeOther={save.takeOther} />}
      <div className="halves">
        <section className="page" aria-label="The sheet" data-dense={dense} data-old={proving}>
          {first === routine.id && (
            <FirstProof
              seen={{ verdict: verdict?.verdict, settled: !proving && text === settled, index, last, worst: asked.worst }}
              onLeave={() => setFirst(null)}
            />
          )}
          <div className="margin-head">
            <button type="button" className="density" aria-pressed={dense} onClick={() => setDense(!dense)}>
              closer lines
            </button>
            <Followed cards={found.cards} card={found.followed} follow={found.follow} only={followed} />
          </div>
          <Sheet ref={sheet} initial={save.opening} dress={dress} readAs={readAs} onText={onText} onLine={atLine} />
          {verdict?.holds_when && <Remedy region={verdict.holds_when} old={proving} onWhich={() => setView('when')} />}
          <NotesPanel notes={noted} old={found.notesAreOld} odds={found.odds} waiting={found.waitsForOdds} onLine={onLine} />
          <Foot id={routine.id} state={save.now.state} onSteps={steps} onVersions={versions} onShow={show}>
            {saveWords}
          </Foot>
        </section>
        <Tabs className="right" label="Beside the sheet" tabs={VIEWS} value={view} onChange={setView}>
          {view === 'table' ? (
            <>
              <TablePanel play={play} playback={playback} alone={`/table/${routine.id}`} />
              {drawn && play && drawn.columns.length > 0 && (
                <StrandsView strands={drawn} frames={play.frames} stuckAt={play.stuck_at} index={index} onMoment={goTo} onHover={setHovered} />
              )}
              {found.strands && !drawn && play?.target && !reads && verdict && verdict.verdict !== 'unsettled' && (
                <p className="no-strands">There are too many situations here to draw where the card can go.</p>
              )}
              <Hand
                decisions={decisions ?? NONE}
                inHand={play?.in_hand ?? NONE}
                onChoose={choose}
                onTogether={together}
                onAnother={another}
                onWorst={worst}
                worst={worstWords(verdict)}
              />
            </>
          ) : (
            <Variants view={view} routine={routine.id} text={settled} blanks={found.blanks} numbers={found.numbers} onLine={onLine} replace={replace} />
          )}
        </Tabs>
      </div>
      <StepsDrawer kinds={kinds ?? NONE} opened={open === 'steps'} close={close} onInsert={insert} />
      <Versions id={routine.id} text={text} opened={open === 'versions'} close={close} saved={saved} replace={replace} />
    </div>
  );
}

/** Of which card the margin says where it is; a choice where there are several. */
function Followed({ cards, card, follow, only }: { cards: string[]; card: string | null; follow: (card: string) => void; only: string | undefined }) {
  if (cards.length <= 1) return only ? `${only} is at` : '';
  return (
    <label>
      <select aria-label="Card followed in the margin" value={card ?? ''} onChange={(event) => follow(event.currentTarget.value)}>
        {cards.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>{' '}
      is at
    </label>
  );
}

/** Which path the key for the worst one plays. */
function worstWords(verdict: Verdict | null): string {
  if (!verdict?.counterexample) return 'The path that handles most cards';
  return verdict.counterexample.least ? 'The shortest way it fails' : 'A way it fails';
}
