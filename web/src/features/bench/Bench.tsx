import { Button, Group, Menu } from '@mantine/core';
import { useDebouncedValue, useHotkeys } from '@mantine/hooks';
import { IconPlayerPlay, IconPlayerTrackNext, IconPlayerTrackPrev } from '@tabler/icons-react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ApiError, api, type Routine } from '../../api/client';
import { languageQuery, ledgerQuery, notesQuery, oddsQuery, playQuery, proveQuery, readAsQuery, readQuery, settingsQuery, routinesQuery, slipsQuery, strandsQuery, type Asked } from '../../api/queries';
import { Link, useLocation, useNavigate } from 'react-router';
import { useCommands, type Command } from '../palette/commands';
import { Hand } from './Hand';
import { Sheet, type SheetHandle } from './Sheet';
import { NotesPanel } from './NotesPanel';
import { StepsDrawer } from './StepsDrawer';
import { StrandsView } from './StrandsView';
import { TableView } from './TableView';
import { VerdictBar } from './VerdictBar';
import { Versions } from './Versions';
import { spoken } from './patter';
import { SaveWords, TwoTexts } from './SaveFoot';
import { useAutosave } from './useAutosave';
import { usePlayback } from './usePlayback';
import { useProgress } from '../../api/useProgress';
import { VIEWS, VIEW_KEYS, Variants, Views, type View } from '../variants/Variants';
import './bench.css';

const FIRST: Asked = { choices: {}, seed: null, worst: false };

/** The bench: the sheet, the verdict on it, and one path played on the table. */
export function Bench({ routine }: { routine: Routine }) {
  const sheet = useRef<SheetHandle>(null);
  const client = useQueryClient();
  const replace = useCallback((other: string) => sheet.current?.replace(other), []);
  const save = useAutosave(routine, replace);
  const opening = save.opening;
  const [text, setText] = useState(opening);
  const [asked, setAsked] = useState<Asked>(FIRST);
  const [view, setView] = useState<View>('table');
  const [longer, setLonger] = useState<string | null>(null);
  const [settled] = useDebouncedValue(text, 60);
  const job = useMemo(() => `${routine.id} ${crypto.randomUUID()} ${settled.length}`.slice(0, 64), [routine.id, settled]);

  const lane = longer === settled ? 'long' : 'interactive';
  const read = useQuery(readQuery(settled));
  const proof = useQuery(proveQuery(settled, lane, job));
  // Lines in everyday words: what is sure of them is proved as if it stood there.
  // A sentence of the language can be in question too: a word of the trade that would become a new heap.
  const { data: settings } = useQuery(settingsQuery());
  const keeping = useMutation({ mutationFn: api.changeSettings, onSuccess: (now) => client.setQueryData(settingsQuery().queryKey, now) });
  const keepWords = (keeping.isPending ? keeping.variables.keep_words : settings?.keep_words) ?? false;
  const unread = !read.isPlaceholderData && (read.data?.to_read ?? false);
  const understood = useQuery({ ...readAsQuery(settled, keepWords), enabled: unread });
  const asRead = unread ? (understood.data?.text ?? null) : null;
  const proofAsRead = useQuery({ ...proveQuery(asRead ?? '', 'interactive', `${job.slice(0, 60)} as`), placeholderData: undefined, enabled: asRead !== null });
  const readAs = useMemo(() => (unread && understood.data ? { text: settled, lines: understood.data.lines, keepWords } : null), [unread, understood.data, settled, keepWords]);
  const play = useQuery(playQuery(settled, asked));
  // The verdict first; what explains it as it comes.
  const judged = proof.isSuccess && !proof.isPlaceholderData;
  const [follow, setFollow] = useState<string | null>(null);
  const ledger = useQuery({ ...ledgerQuery(settled, follow), enabled: judged });
  const cards = ledger.data?.cards ?? [];
  const strands = useQuery({ ...strandsQuery(settled), enabled: judged });
  const notes = useQuery({ ...notesQuery(settled), enabled: judged });
  const noted = notes.data?.notes ?? null;
  const odds = useQuery({ ...oddsQuery(settled), enabled: judged && (noted?.asks_odds ?? false) });
  const slips = useQuery({ ...slipsQuery(settled), enabled: judged && view === 'breaks' });
  const language = useQuery(languageQuery());
  const [open, setOpen] = useState<'steps' | 'versions' | null>(null);
  const [hovered, setHovered] = useState(0);
  const shut = () => setOpen(null);
  const verdict = proof.data?.verdict ?? (asRead === null ? null : (proofAsRead.data?.verdict ?? null));
  const reads = proof.data?.verdict || asRead === null ? 0 : (understood.data?.sure ?? 0);
  const proving = proof.isPlaceholderData || proof.isFetching || text !== settled;
  const progress = useProgress(proof.isFetching ? job : null);
  const { index, last, step, goTo, goToLine, run, running } = usePlayback(play.data);
  const frame = play.data?.frames[index];

  const change = save.change;
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
  const go = useNavigate();
  useEffect(() => {
    if (sentHere?.text === undefined) return;
    sheet.current?.replace(sentHere.text);
    sheet.current?.focus();
    void go('.', { replace: true, state: null });
  }, [sentHere, go]);

  const onLine = useCallback((line: number) => goToLine(line), [goToLine]);
  const worst = useCallback(() => {
    setAsked({ ...FIRST, worst: true });
    run();
  }, [run]);
  const another = useCallback(() => {
    setAsked({ ...FIRST, seed: Math.floor(Math.random() * 2 ** 31) });
    run();
  }, [run]);
  const decisions = play.data?.decisions;
  const choose = useCallback(
    (key: string, value: number) => {
      const now = Object.fromEntries((decisions ?? []).map((decision) => [decision.key, decision.value]));
      setAsked({ ...FIRST, choices: { ...now, [key]: value } });
    },
    [decisions],
  );

  useHotkeys(
    [
      ['alt+ArrowRight', () => step(1)],
      ['alt+ArrowLeft', () => step(-1)],
      ['alt+A', another],
      ['alt+W', worst],
      ['alt+S', () => setOpen('steps')],
      ['alt+V', () => setOpen('versions')],
      ...VIEW_KEYS.map((one, i): [string, () => void] => [`alt+${i + 1}`, () => setView(one)]),
    ],
    [],
    true,
  );

  // What is shown and printed is what the shelf has: the last keys are saved first.
  const saved = save.saved;
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

  const kinds = language.data;
  const commands = useMemo<Command[]>(
    () => [
      { id: 'another', group: 'At the table', label: 'Another spectator', keys: 'Alt A', run: another },
      { id: 'worst', group: 'At the table', label: 'Worst case', keys: 'Alt W', run: worst },
      { id: 'forward', group: 'At the table', label: 'One step on', keys: 'Alt →', run: () => step(1) },
      { id: 'back', group: 'At the table', label: 'One step back', keys: 'Alt ←', run: () => step(-1) },
      { id: 'steps', group: 'On the sheet', label: 'All steps by family', keys: 'Alt S', run: () => setOpen('steps') },
      { id: 'show', group: 'On the sheet', label: 'Show: cues, set-up, reset, what it costs', run: () => show() },
      { id: 'versions', group: 'On the sheet', label: 'Versions', keys: 'Alt V', run: () => setOpen('versions') },
      ...VIEWS.map((one) => ({ id: one.view, group: 'Beside the sheet', label: one.label, keys: one.keys, run: () => setView(one.view) })),
      ...(kinds ?? []).map((kind) => ({
        id: `step ${kind.name}`,
        group: `Write: ${kind.family}`,
        label: kind.example,
        description: kind.summary,
        also: kind.also,
        run: () => sheet.current?.insertStep(kind.example),
      })),
    ],
    [another, worst, step, kinds, show],
  );
  useCommands('bench', commands);

  const faults = proof.data?.faults ?? [];
  // A line that can mean several things is a question; one that was understood is no fault.
  const question = readAs?.lines.find((one) => one.answer.asks);
  const pending = question
    ? [{ line: question.line, column: 1, end: 1, message: `It can mean ${question.answer.readings.length} things.`, expected: 'one of the readings below it', remedy: 'Alt ↓ shows the next one, Tab writes it.' }]
    : faults.filter((fault) => !readAs?.lines.some((one) => one.line === fault.line && one.answer.readings.length > 0));
  const shownLine = frame?.line ?? 0;
  const failing = play.data?.stuck_at ?? (play.data?.failures.length && index === last ? shownLine : 0);
  const dress = useMemo(
    () => ({
      text: settled,
      lines: read.isPlaceholderData ? [] : (read.data?.lines ?? []),
      ledger: ledger.isPlaceholderData ? [] : (ledger.data?.ledger ?? []),
      // Below a line that was understood stands what it was read as.
      faults: (proof.isPlaceholderData ? (read.data?.faults ?? []) : (proof.data?.faults ?? [])).filter((fault) => !readAs?.lines.some((one) => one.line === fault.line)),
      current: hovered || shownLine,
      failing,
      shows: noted?.shows ?? [],
      strict: slips.data?.slips?.strict ?? [],
      free: slips.data?.slips?.free ?? [],
    }),
    [settled, readAs, noted, slips.data, read.isPlaceholderData, read.data, ledger.isPlaceholderData, ledger.data, proof.isPlaceholderData, proof.data, shownLine, hovered, failing],
  );

  const said = frame ? spoken(settled, dress.lines, shownLine, frame.numbers) : [];
  const followed = (reads ? undefined : verdict?.landing?.card) ?? play.data?.target ?? undefined;
  const drawn = strands.data?.strands;
  const silent = proof.error instanceof ApiError && proof.error.status === 0;

  return (
    <div className="bench">
      <VerdictBar
        verdict={verdict}
        faults={reads && verdict ? [] : pending}
        reads={reads}
        keepWords={keepWords}
        onKeepWords={(keep) => settings && keeping.mutate({ ...settings, keep_words: keep })}
        onAccept={() => asRead !== null && sheet.current?.replace(asRead)}
        old={proving}
        progress={progress}
        trouble={silent ? 'The server does not answer.' : stopped(proof.error)}
        onShow={worst}
        onStop={() => void api.cancel(job)}
        onLonger={() => setLonger(settled)}
      />
      {save.conflict && <TwoTexts conflict={save.conflict} keepMine={save.keepMine} takeOther={save.takeOther} />}
      <div className="halves">
        <section className="page" aria-label="The sheet">
          <div className="margin-head">
            {cards.length > 1 ? (
              <label>
                <select aria-label="Card followed in the margin" value={ledger.data?.card ?? ''} onChange={(event) => setFollow(event.currentTarget.value)}>
                  {cards.map((card) => (
                    <option key={card}>{card}</option>
                  ))}
                </select>{' '}
                is at
              </label>
            ) : followed ? (
              `${followed} is at`
            ) : (
              ''
            )}
          </div>
          <Sheet ref={sheet} initial={opening} dress={dress} readAs={readAs} onText={onText} onLine={onLine} />
          {verdict?.holds_when && !proving && (
            <aside className="remedy" aria-label="When it holds">
              {verdict.holds_when.text ? (
                <>
                  <b>Holds exactly when {verdict.holds_when.text}.</b> Narrow the choice to that, or change a number.
                </>
              ) : verdict.holds_when.passing === 0 ? (
                <b>It never holds.</b>
              ) : (
                <>
                  <b>{verdict.holds_when.says}</b>{' '}
                  <button type="button" className="to-view" onClick={() => setView('when')}>
                    On which?
                  </button>
                </>
              )}
            </aside>
          )}
          <NotesPanel
            notes={proving ? null : noted}
            odds={odds.data?.odds ?? null}
            waiting={odds.isFetching}
            onLine={(line) => sheet.current?.goToLine(line)}
          />
          <footer className={`foot ${save.state}`} role="status" data-save={save.state}>
            <SaveWords saved={save} gone={save.gone} />
            <span className="foot-tools">
              <Button size="compact-sm" variant="subtle" color="gray" onClick={() => setOpen('steps')}>
                Steps
              </Button>
              <Button size="compact-sm" variant="subtle" color="gray" component={Link} to={`/show/${routine.id}`} onClick={show}>
                Show
              </Button>
              <Button size="compact-sm" variant="subtle" color="gray" onClick={() => setOpen('versions')}>
                Versions
              </Button>
              <Menu position="top-end">
                <Menu.Target>
                  <Button size="compact-sm" variant="subtle" color="gray">
                    Export
                  </Button>
                </Menu.Target>
                <Menu.Dropdown>
                  <Menu.Item component="a" href={`/api/routines/${routine.id}/routine.pivot`} download>
                    Text (.pivot)
                  </Menu.Item>
                  <Menu.Item component="a" href={`/api/routines/${routine.id}/routine.json`} download>
                    JSON
                  </Menu.Item>
                </Menu.Dropdown>
              </Menu>
            </span>
          </footer>
        </section>
        <div className="right">
          <Views view={view} onView={setView} />
          {view === 'table' ? (
            <>
          <section className="panel table-panel" aria-label="The table">
            <header>
              <h2>The table</h2>
              <span className="when">{frame ? moment(frame.line, frame.round, play.data?.failures ?? [], index === last) : ''}</span>
              <Group gap={6} wrap="nowrap">
                <Button size="compact-sm" variant="subtle" aria-label="One step back" disabled={index === 0} onClick={() => step(-1)}>
                  <IconPlayerTrackPrev size={16} />
                </Button>
                <span className="figures">
                  {index} of {last}
                </span>
                <Button size="compact-sm" variant="subtle" aria-label="One step on" disabled={index === last} onClick={() => step(1)}>
                  <IconPlayerTrackNext size={16} />
                </Button>
                <Button
                  size="compact-sm"
                  variant="subtle"
                  leftSection={<IconPlayerPlay size={15} />}
                  onClick={running ? () => goTo(index) : run}
                >
                  {running ? 'Hold' : 'Play'}
                </Button>
              </Group>
            </header>
            {said.length > 0 && <p className="spoken">{said.map((words) => `“${words}”`).join(' ')}</p>}
            {play.data && frame && play.data.frames.some((f) => f.places.some((p) => p.cards.length)) ? (
              <TableView play={play.data} frame={frame} />
            ) : (
              <p className="bare-table">The table is bare. Write the pack first: “Pack: 52 cards, any order”.</p>
            )}
          </section>
          {drawn && play.data && drawn.columns.length > 0 && (
            <StrandsView strands={drawn} frames={play.data.frames} index={index} onMoment={goTo} onHover={setHovered} />
          )}
          {strands.data && !drawn && !reads && verdict && verdict.verdict !== 'unsettled' && (
            <p className="no-strands">There are too many situations here to draw where the card can go.</p>
          )}
          <Hand
            decisions={decisions ?? []}
            onChoose={choose}
            onAnother={another}
            onWorst={worst}
            worst={verdict?.counterexample ? 'The shortest way it fails' : 'The path that handles most cards'}
          />
            </>
          ) : (
            <Variants view={view} text={settled} lines={dress.lines} onLine={(line) => sheet.current?.goToLine(line)} replace={(other) => sheet.current?.replace(other)} />
          )}
        </div>
      </div>
      <StepsDrawer kinds={kinds ?? []} opened={open === 'steps'} close={shut} onInsert={(sentence) => sheet.current?.insertStep(sentence)} />
      <Versions
        id={routine.id}
        text={text}
        opened={open === 'versions'}
        close={shut}
        saved={save.saved}
        replace={(other) => sheet.current?.replace(other)}
      />
    </div>
  );
}

function stopped(error: unknown): string | null {
  return error instanceof ApiError && error.status === 410 ? 'The search was stopped. Change a line to start again.' : null;
}

function moment(line: number, round: number[], failures: string[], atEnd: boolean): string {
  const when = line === 0 ? 'before the first line' : `after line ${line}`;
  const turn = round.length ? `, time ${round.join(', ')}` : '';
  return atEnd && failures.length ? `${when}${turn}: ${failures.join(' and ')}` : `${when}${turn}`;
}
