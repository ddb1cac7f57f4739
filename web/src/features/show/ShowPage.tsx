import { Button, Group, Skeleton } from '@mantine/core';
import { IconFileTypePdf, IconPrinter } from '@tabler/icons-react';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { api, ApiError, type SheetKind } from '../../api/client';
import { TOLD_HERE } from '../../api/queryClient';
import { savedRoutineQuery, settingsQuery, sheetQuery } from '../../api/queries';
import { useSearch } from '../../api/useSearch';
import { NotFound } from '../../ui/NotFound';
import { Tabs } from '../../ui/Tabs';
import { Working } from '../../ui/Working';
import { ComparePanel } from './ComparePanel';
import { CostsPanel } from './CostsPanel';
import { SchoolsPanel } from './SchoolsPanel';
import { SheetView } from './SheetView';
import './show.css';

const TABS = [
  { value: 'cues', label: 'Cue sheet' },
  { value: 'setup', label: 'Set-up' },
  { value: 'reset', label: 'Reset' },
  { value: 'costs', label: 'What it costs' },
  { value: 'schools', label: 'Other schools' },
  { value: 'versions', label: 'Versions' },
] as const;

type Tab = (typeof TABS)[number]['value'];

/** From the bench to a table in front of people: everything that is printed, and what a routine costs. */
export default function ShowPage() {
  const id = Number(useParams().id);
  const { data: routine, error } = useQuery(savedRoutineQuery(id));
  const [search, setSearch] = useSearchParams();
  const tab = TABS.find((one) => one.value === search.get('tab'))?.value ?? 'cues';
  if (error) return <NotFound what={error instanceof ApiError && error.status === 404 ? 'This routine is not on the shelf.' : error.message} />;
  if (!routine) return <Skeleton height={300} role="img" aria-label="Opening the routine" />;
  const choose = (to: Tab) => setSearch(to === 'cues' ? {} : { tab: to });
  const printed = tab === 'cues' || tab === 'setup' || tab === 'reset';
  return (
    <div className="show">
      <header className="show-head">
        <div>
          <h1>{routine.title}</h1>
          <Link to={`/bench/${id}`}>to the bench</Link>
        </div>
        {printed && (
          <Group gap={6}>
            <Button size="compact-sm" component="a" href={`/api/routines/${id}/sheets/${tab}.pdf`} download leftSection={<IconFileTypePdf size={15} />}>
              PDF
            </Button>
            <Button size="compact-sm" variant="default" component="a" href={`/api/routines/${id}/sheets/${tab}.pdf?size=letter`} download>
              Letter PDF
            </Button>
            <Button size="compact-sm" variant="default" component="a" href={`/api/routines/${id}/sheets/${tab}.pdf?size=pocket`} download>
              Pocket PDF
            </Button>
            <Button size="compact-sm" variant="default" component="a" href={`/api/routines/${id}/sheets/${tab}.md`} download>
              Markdown
            </Button>
            <Button size="compact-sm" variant="default" leftSection={<IconPrinter size={15} />} onClick={() => window.print()}>
              Print
            </Button>
          </Group>
        )}
      </header>
      <Tabs className="show-tabs" label="What to take to the table" tabs={TABS} value={tab} onChange={choose}>
        {printed && <Sheet id={id} text={routine.text} kind={tab} />}
        {tab === 'costs' && <CostsPanel text={routine.text} />}
        {tab === 'schools' && <SchoolsPanel id={id} text={routine.text} />}
        {tab === 'versions' && <ComparePanel id={id} text={routine.text} />}
      </Tabs>
    </div>
  );
}

function Sheet({ id, text, kind }: { id: number; text: string; kind: SheetKind }) {
  const go = useNavigate();
  const fill = useMutation({
    ...TOLD_HERE,
    mutationFn: () => api.patter(text),
    onSuccess: (filled) => void go(`/bench/${id}`, { state: { text: filled.text } }),
  });
  const { data: settings } = useQuery(settingsQuery());
  const { data, ...search } = useSearch(sheetQuery(text, kind, settings?.paces), settings !== undefined);
  if (search.isFetching || !data) return <Working search={search} doing="Writing the sheet…" />;
  const gaps = data.parts.filter((part) => part.kind === 'beat' && part.suggested).length;
  return (
    <>
      {gaps > 0 && (
        <p className="fill">
          {gaps === 1 ? 'At one line' : `At ${gaps} lines`} nothing is said yet.{' '}
          <Button size="compact-xs" variant="default" loading={fill.isPending} onClick={() => fill.mutate()}>
            Write what may be said into the routine
          </Button>
          {fill.error && <span role="alert">{fill.error.message}</span>}
        </p>
      )}
      <SheetView sheet={data} />
    </>
  );
}
